/**
 * Whether a part that is to be fitted is like the one that belongs there. What nobody has said is never taken for alike:
 * it is named, and the answer stays open. A fuse above the design is no repair, whatever fits the hole.
 *
 * Ratings in ampere, volts, watts, mm², °C. Rules of the trade: families and heights of ISO 8820-3, relay footprints and
 * terminals of ISO 7588, ampacity as in `limits/ampacity.ts`.
 */
import type { KindOfPart } from '../format';
import { ampacity, BLADE_VOLTS } from '../limits';

/** As an entry has it, what is not said being written down or left out. */
type Said<T> = { readonly [K in keyof T]: T[K] | undefined } & {
  readonly kind: T extends { kind: infer K } ? K : never;
};
type KindNamed<K> = Said<Extract<KindOfPart, { kind: K }>>;

export type FuseKind = KindNamed<'fuse'>;
export type RelayKind = KindNamed<'relay'>;
export type LampKind = KindNamed<'lamp'>;
export type WireKind = KindNamed<'wire'>;
export type SwitchKind = KindNamed<'switch'>;
export type ConnectorKind = KindNamed<'connector'>;
export type PartKind = FuseKind | RelayKind | LampKind | WireKind | SwitchKind | ConnectorKind;

/** What stands around the place. */
export interface Place {
  readonly nominalVolts: number;
  /** The thinnest wire behind a fuse, mm²; null where nobody has said it. */
  readonly wireMm2: number | null;
}

export interface Alike {
  /** `open`: something that decides is not said. `above`: a fuse of more than the design. */
  readonly verdict: 'alike' | 'unlike' | 'above' | 'open';
  /** It may be written down as a repair; else only as a temporary part, with a reason. */
  readonly repair: boolean;
  /** What differs, or is not said, each in words. */
  readonly because: readonly string[];
  /** Of a fuse: its rating against the design, and against what the wire carries, percent. */
  readonly percentOfDesign: number | null;
  readonly percentOfWire: number | null;
}

/** Differences first; what is not said only decides where nothing differs. */
class Judging {
  private readonly differs: string[] = [];
  private readonly unsaid: string[] = [];

  same<T extends string | number | boolean>(
    name: string,
    wanted: T | undefined,
    fitted: T | undefined,
    words: (one: T) => string = String,
  ): void {
    if (wanted === undefined || fitted === undefined) this.unsaid.push(`${name} is not said`);
    else if (wanted !== fitted) this.differs.push(`${name} ${words(fitted)} in place of ${words(wanted)}`);
  }

  atLeast(name: string, wanted: number | undefined, fitted: number | undefined, unit: string): void {
    if (wanted === undefined || fitted === undefined) this.unsaid.push(`${name} is not said`);
    else if (fitted < wanted) this.differs.push(`${name} ${fitted} ${unit}, less than ${wanted} ${unit}`);
  }

  wrong(words: string): void {
    this.differs.push(words);
  }

  open(words: string): void {
    this.unsaid.push(words);
  }

  answer(): Alike {
    const verdict = this.differs.length > 0 ? 'unlike' : this.unsaid.length > 0 ? 'open' : 'alike';
    return {
      verdict,
      repair: verdict === 'alike',
      because: [...this.differs, ...this.unsaid],
      percentOfDesign: null,
      percentOfWire: null,
    };
  }
}

const percent = (part: number, whole: number) => Math.round((part / whole) * 100);

function fuses(wanted: FuseKind, fitted: FuseKind, place: Place): Alike {
  const judging = new Judging();
  judging.same('family', wanted.family, fitted.family, (one) => one.replace(/-/g, ' '));
  judging.atLeast('made for', place.nominalVolts, fitted.volts ?? BLADE_VOLTS, 'V');
  const { ratingAmps: design } = wanted;
  const { ratingAmps: amps } = fitted;
  if (design === undefined || amps === undefined) judging.open('the rating is not said');
  else if (amps < design)
    judging.wrong(`${amps} A, less than the ${design} A of the design: it may open for nothing`);
  const carries = place.wireMm2 === null ? null : ampacity(place.wireMm2);
  const figures = {
    percentOfDesign: design === undefined || amps === undefined ? null : percent(amps, design),
    percentOfWire: carries === null || amps === undefined ? null : percent(amps, carries),
  };
  const answer = judging.answer();
  if (design === undefined || amps === undefined || amps <= design) return { ...answer, ...figures };
  const wire =
    carries === null
      ? 'what the wire behind it carries is not known'
      : amps > carries
        ? `more than the ${carries} A that the wire behind it carries: the wire burns before the fuse opens`
        : `the wire behind it carries ${carries} A`;
  return {
    verdict: 'above',
    repair: false,
    because: [`${amps} A is ${percent(amps, design)} % of the design; ${wire}`, ...answer.because],
    ...figures,
  };
}

function relays(wanted: RelayKind, fitted: RelayKind): Alike {
  const judging = new Judging();
  const number = wanted.number?.trim().toUpperCase();
  if (number && number === fitted.number?.trim().toUpperCase()) return judging.answer();
  judging.same('footprint', wanted.footprint, fitted.footprint);
  judging.same('pin layout', wanted.layout, fitted.layout);
  judging.same('contact', wanted.contact, fitted.contact);
  judging.same('coil', wanted.coilVolts, fitted.coilVolts, (one) => `${one} V`);
  judging.same('suppression', wanted.suppression, fitted.suppression);
  if (fitted.suppression === 'diode' && wanted.suppression === 'diode') {
    if (wanted.plusPin && fitted.plusPin) judging.same('plus of the coil at', wanted.plusPin, fitted.plusPin);
    else judging.open('which pin of the coil is plus is not said');
  }
  judging.atLeast('contact rating', wanted.contactAmps, fitted.contactAmps, 'A');
  return judging.answer();
}

function lamps(wanted: LampKind, fitted: LampKind): Alike {
  const judging = new Judging();
  judging.same('volts', wanted.volts, fitted.volts, (one) => `${one} V`);
  judging.same('watts', wanted.watts, fitted.watts, (one) => `${one} W`);
  judging.same('base', wanted.base, fitted.base);
  return judging.answer();
}

function wires(wanted: WireKind, fitted: WireKind): Alike {
  const judging = new Judging();
  judging.atLeast('size', wanted.sizeMm2, fitted.sizeMm2, 'mm²');
  judging.atLeast('insulation', wanted.celsius, fitted.celsius, '°C');
  const takes = wanted.terminalMm2;
  if (!takes) judging.open('which sizes the terminal takes is not said');
  else {
    const [least = 0, most = Number.POSITIVE_INFINITY] = takes;
    if (fitted.sizeMm2 !== undefined && (fitted.sizeMm2 < least || fitted.sizeMm2 > most))
      judging.wrong(`${fitted.sizeMm2} mm² is outside of the ${least} to ${most} mm² of the terminal`);
  }
  return judging.answer();
}

function switches(wanted: SwitchKind, fitted: SwitchKind): Alike {
  const judging = new Judging();
  judging.same('action', wanted.action, fitted.action);
  judging.atLeast('rating', wanted.amps, fitted.amps, 'A');
  return judging.answer();
}

function connectors(wanted: ConnectorKind, fitted: ConnectorKind): Alike {
  const judging = new Judging();
  judging.same('series', wanted.series, fitted.series);
  judging.same('cavities', wanted.cavities, fitted.cavities);
  if (wanted.sealed === true && fitted.sealed === false)
    judging.wrong('it has no seal, and the place had one');
  else if (wanted.sealed === undefined || fitted.sealed === undefined) judging.open('the seal is not said');
  return judging.answer();
}

/** What is to be fitted against what belongs there. */
export function likeForLike(wanted: PartKind, fitted: PartKind, place: Place): Alike {
  if (wanted.kind === 'fuse' && fitted.kind === 'fuse') return fuses(wanted, fitted, place);
  if (wanted.kind === 'relay' && fitted.kind === 'relay') return relays(wanted, fitted);
  if (wanted.kind === 'lamp' && fitted.kind === 'lamp') return lamps(wanted, fitted);
  if (wanted.kind === 'wire' && fitted.kind === 'wire') return wires(wanted, fitted);
  if (wanted.kind === 'switch' && fitted.kind === 'switch') return switches(wanted, fitted);
  if (wanted.kind === 'connector' && fitted.kind === 'connector') return connectors(wanted, fitted);
  const judging = new Judging();
  judging.wrong(`a ${fitted.kind} in place of a ${wanted.kind}`);
  return judging.answer();
}
