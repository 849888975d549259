/** A fuse that was fitted, against the one that the map has in its place and the wires behind it. */
import { partsBehind } from '../circuit';
import type { CircuitFile, PartOf, Slot } from '../format';
import { type Alike, likeForLike, type Place } from './likeForLike';

export interface FittedFuse {
  /** Of the circuit. */
  readonly part: string;
  readonly ratingAmps?: number | undefined;
  readonly family?: Slot['family'] | undefined;
}

/** Of the wires behind a fuse the thinnest, mm²; null where the size of one of them is not said: it may be thinner. */
export function thinnestBehind(circuit: CircuitFile, fuse: string): number | null {
  const sizes = partsBehind(circuit, fuse).flatMap((part) => (part.kind === 'wire' ? [part.sizeMm2] : []));
  const said = sizes.filter((size) => size !== undefined);
  return sizes.length === 0 || said.length < sizes.length ? null : Math.min(...said);
}

/** Null where the circuit has no such fuse. */
export function judgeFuse(circuit: CircuitFile, { part, ratingAmps, family }: FittedFuse): Alike | null {
  const fuse = circuit.parts.find((one): one is PartOf<'fuse'> => one.id === part && one.kind === 'fuse');
  if (!fuse) return null;
  const place: Place = { nominalVolts: circuit.nominalVolts, wireMm2: thinnestBehind(circuit, part) };
  // Who fits the family of the hole has no need to say so; where the map does not know it either, it stays unsaid.
  const wanted = { kind: 'fuse', family: fuse.family, ratingAmps: fuse.ratingAmps } as const;
  return likeForLike(wanted, { kind: 'fuse', ratingAmps, family: family ?? fuse.family }, place);
}

/** A fuse that was fitted in words, with what it is against the design where it is not like it. */
export function fittedWords(circuit: CircuitFile | null, fitted: FittedFuse, name: string): string {
  const alike = circuit ? judgeFuse(circuit, fitted) : null;
  const said = alike === null || alike.verdict === 'alike' ? '' : `: ${alike.because.join('; ')}`;
  return `${name}: ${fitted.ratingAmps} A fitted${said}.`;
}
