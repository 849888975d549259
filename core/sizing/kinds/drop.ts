/** Volts lost piece by piece along a run, there and back, against what the trade allows each piece. */

import type { PartKind } from '../../format';
import {
  CONNECTOR_OHMS,
  FEED_MAY_LOSE_VOLTS,
  fuseColdOhms,
  GROUND_OHMS,
  mayLose,
  RELAY_CONTACT_OHMS,
  SPLICE_LEG_OHMS,
  SWITCH_OHMS,
  wireOhms,
} from '../../limits';
import { formatNumber } from '../../quantity';
import type { SumResult } from '../explained';
import { amps, figure, list, metres, type ReadField, readSize, volts } from '../fields';
import { sumOf } from '../sum';

/** A piece of a run: a wire, a joint of a kind with its usual ohms, or what was said of it. */
export interface Piece {
  readonly words: string;
  readonly ohms?: number;
  /** Lost whatever the current, as it was measured. */
  readonly lostVolts?: number;
  readonly kind: PartKind | null;
  readonly how: string;
}

const JOINTS: readonly (readonly [RegExp, PartKind, number])[] = [
  [/\b(plug|connector|terminal)\b/i, 'connector', CONNECTOR_OHMS],
  [/\b(splice|joint|crimp)\b/i, 'splice', SPLICE_LEG_OHMS],
  [/\bswitch\b/i, 'switch', SWITCH_OHMS],
  [/\b(relay|contact)\b/i, 'relay', RELAY_CONTACT_OHMS],
  [/\b(earth|ground|strap)\b/i, 'ground', GROUND_OHMS],
];

/** "3.1 m 16 mm²", "2 m awg 12", "fuse 20 A", "plug", "earth 0.05 V", "strap 3 mΩ". */
export function readPiece(line: string): ReadField<Piece> {
  const said = /^(.*?)\s*([\d.,]+\s*(?:m?(?:Ω|ohm|ohms)|m?V))$/i.exec(line);
  const joint = JOINTS.find(([pattern]) => pattern.test(line));
  if (said && !/mm/.test(said[2]!)) {
    const inVolts = /v$/i.test(said[2]!);
    const number =
      Number(said[2]!.replace(/[^\d.,]/g, '').replace(',', '.')) * (/m(Ω|ohm|v)/i.test(said[2]!) ? 0.001 : 1);
    if (!Number.isFinite(number) || number > 1000) return { ok: false, message: `“${said[2]}” is no drop.` };
    return {
      ok: true,
      value: {
        words: said[1] || line,
        kind: joint?.[1] ?? null,
        how: inVolts ? 'measured' : 'ohms said',
        ...(inVolts ? { lostVolts: number } : { ohms: number }),
      },
    };
  }
  const fuse = /^fuse\s+([\d.,]+)\s*A?$/i.exec(line);
  if (fuse) {
    const rating = amps({ name: 'Rating', typical: '' }).read(fuse[1]!);
    if (!rating.ok) return rating;
    return {
      ok: true,
      value: {
        words: line,
        ohms: fuseColdOhms(rating.value),
        kind: 'fuse',
        how: `${figure(fuseColdOhms(rating.value) * 1000)} mΩ cold`,
      },
    };
  }
  const length = /([\d.,]+\s*(?:cm|mm(?!²|2)|ft|m(?!m|²)))(?=\s|$)/i.exec(line);
  if (length) {
    const read = metres({ name: 'Length', typical: '' }).read(length[1]!);
    const size = readSize(
      line
        .replace(length[1]!, '')
        .replace(/\b(wire|cable|of)\b|(?<!\d),(?!\d)/gi, '')
        .trim(),
    );
    if (!read.ok) return read;
    if (!size.ok) return { ok: false, message: `its size: ${size.message}` };
    const ohms = wireOhms(read.value, size.value);
    return {
      ok: true,
      value: {
        words: line,
        ohms,
        kind: 'wire',
        how: `${figure(wireOhms(1, size.value) * 1000)} mΩ/m × ${formatNumber(read.value)} m`,
      },
    };
  }
  if (joint)
    return {
      ok: true,
      value: { words: line, ohms: joint[2], kind: joint[1], how: `${figure(joint[2] * 1000)} mΩ usual` },
    };
  return {
    ok: false,
    message: `“${line}” is no piece: “3.1 m 16 mm²”, “fuse 20 A”, “plug”, “earth 0.05 V”, “strap 3 mΩ”.`,
  };
}

export interface DropPiece extends Piece {
  readonly volts: number;
  /** More than a sound piece of its kind loses. */
  readonly tooMuch: boolean;
}

/** What each piece loses at a current, and all of them together, volts. */
export function dropAlong(
  pieces: readonly Piece[],
  runAmps: number,
  systemVolts: number,
): { readonly pieces: readonly DropPiece[]; readonly totalVolts: number } {
  const lost = pieces.map((one) => {
    const lostVolts = one.lostVolts ?? (one.ohms ?? 0) * runAmps;
    const limit = one.kind === null ? 0 : mayLose(one.kind, runAmps, systemVolts);
    return { ...one, volts: lostVolts, tooMuch: limit > 0 && lostVolts > limit + 1e-9 };
  });
  return { pieces: lost, totalVolts: lost.reduce((sum, one) => sum + one.volts, 0) };
}

export const drop = sumOf({
  id: 'drop',
  name: 'Voltage drop',
  also: ['loss', 'volt drop', 'resistance', 'run'],
  says: 'What a run loses piece by piece at its current, and where most of it goes.',
  fields: {
    amps: amps({ name: 'Current', typical: '10 A' }),
    volts: volts({ name: 'On a system of', typical: '12 V', first: '12' }),
    pieces: list(
      { name: 'Pieces, there and back', typical: '3.1 m 16 mm² · fuse 20 A · plug · switch · earth 0.05 V' },
      readPiece,
    ),
  },
  work: (typed): SumResult => {
    const { pieces, totalVolts } = dropAlong(typed.pieces, typed.amps, typed.volts);
    const share = (100 * totalVolts) / typed.volts;
    const most = pieces.reduce((best, one) => (one.volts > best.volts ? one : best));
    return {
      answers: [
        {
          id: 'total',
          name: 'Lost in all',
          words: figure(totalVolts, 'V'),
          main: true,
          stands: share > 10 ? 'bad' : share > 3 ? 'watch' : 'good',
        },
        { id: 'percent', name: 'Of the system', words: `${figure(share)} %` },
        { id: 'left', name: 'At the load', words: figure(Math.max(0, typed.volts - totalVolts), 'V') },
        { id: 'most', name: 'Most of it', words: `${most.words}: ${figure(most.volts, 'V')}` },
      ],
      governs:
        share > 10
          ? 'More than 10 %: too much for anything.'
          : share > 3
            ? 'Over 3 %: too much for lamps, electronics and pumps; for the rest up to 10 %.'
            : 'Within 3 %: good for anything.',
      steps: pieces.map((one) => ({
        name: one.words,
        formula:
          one.lostVolts === undefined
            ? `${formatNumber(typed.amps)} A × ${figure((one.ohms ?? 0) * 1000)} mΩ = ${figure(one.volts, 'V')}${one.tooMuch ? ', more than a sound one loses' : ''}`
            : `${figure(one.volts, 'V')}, measured${one.tooMuch ? ', more than a sound one loses' : ''}`,
        source: one.how,
      })),
      assumes: ['Ohms at 20 °C, fuses cold, joints as sound ones have them.'],
      leavesOut: ['What heat adds: copper 0.39 % a degree, a loaded fuse 20 to 40 %.'],
      cautions: [
        ...(totalVolts >= typed.volts
          ? ['More would be lost than there is: this current cannot flow through this run.']
          : []),
        ...(totalVolts > FEED_MAY_LOSE_VOLTS
          ? [
              `For a test of what is there, a whole feed may lose ${FEED_MAY_LOSE_VOLTS} V at its working current.`,
            ]
          : []),
        ...pieces.filter((one) => one.tooMuch).map((one) => `${one.words}: look at it first.`),
      ],
      curve: null,
      label: `${figure(totalVolts, 'V')} lost at ${figure(typed.amps, 'A')}`,
    };
  },
});
