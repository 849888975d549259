/**
 * Relays and modules of the runs, pin by pin. A pin that reads right is good only if current flows through it under the
 * suspects that are left, and none of these lies on the stretch that the pin speaks for.
 */
import type { CircuitModel } from '../../network';
import type { Left } from '../evidence/left';
import type { TakenReading } from '../evidence/readings';
import { testId } from '../kinds';
import { carries } from '../kinds/kind';
import type { Run } from '../run';
import { FLOWS } from '../thresholds';
import { joinWords } from '../verdict/joinWords';
import { fixedSwitches, moduleVerdicts } from './moduleVerdicts';
import type { Role, RoleVerdict } from './pinReadings';
import { type RelayDuty, relayDuty } from './relayDuty';
import { relayVerdicts } from './relayVerdicts';

const NO_LOAD = 'No current flows here by what is left, so a bad joint would show the same.';
/** Roles whose pin is looked at from the load's side: what lies behind it, towards earth. */
const TOWARDS_EARTH: ReadonlySet<Role> = new Set(['coil-return', 'earth']);

/** One relay or module, each of its pins with a verdict. */
export interface SwitchedPins {
  readonly part: string;
  /** It does not come out. */
  readonly fixed: boolean;
  readonly rows: readonly RoleVerdict[];
}

export class PinPanel {
  private readonly fixed: ReadonlySet<string>;
  private readonly onRuns: ReadonlySet<string>;
  private readonly soundVolts: Readonly<Record<string, number>>;

  constructor(
    private readonly model: CircuitModel,
    private readonly runs: readonly Run[],
    /** What every relay of the runs has to do in the condition. */
    private readonly duties: Readonly<Record<string, RelayDuty>>,
    private readonly condition: string,
    /** Whether a test may be made. */
    private readonly may: (testId: string) => boolean,
  ) {
    const { circuit, network } = model;
    this.onRuns = new Set(runs.flatMap((run) => run.stations.map((station) => station.part)));
    this.fixed = new Set(fixedSwitches(circuit, this.onRuns).map(({ id }) => id));
    const { volts } = model.sound(condition);
    this.soundVolts = Object.fromEntries(
      circuit.nodes.map(({ id }) => [id, volts[network.nodeIndex.get(id)!]!]),
    );
  }

  /** Those that come out first, as they stand on the runs. */
  read(readings: readonly TakenReading[], left: Left): SwitchedPins[] {
    const { circuit } = this.model;
    const relays = circuit.parts.filter(
      ({ id }) => this.onRuns.has(id) && this.duties[id] && !this.fixed.has(id),
    );
    const fixed = circuit.parts.filter((part) => this.fixed.has(part.id));
    return [...relays, ...fixed].map((part) => ({
      part: part.id,
      fixed: this.fixed.has(part.id),
      rows: this.plain(part.id, readings).map((row) => this.permitted(this.asLeft(part.id, row, left))),
    }));
  }

  /** The verdicts by the readings of the pins alone. */
  private plain(id: string, readings: readonly TakenReading[]): RoleVerdict[] {
    const { circuit, network } = this.model;
    const part = network.parts.get(id);
    const duty = this.duties[id];
    if (part?.kind === 'module-output') {
      return moduleVerdicts(circuit, part, this.soundVolts, this.condition, readings);
    }
    return duty ? relayVerdicts(circuit, id, duty, this.condition, readings) : [];
  }

  /** A reading that safety forbids is not offered. */
  private permitted(row: RoleVerdict): RoleVerdict {
    return row.test && !this.may(testId(row.test)) ? { ...row, test: null } : row;
  }

  private asLeft(id: string, row: RoleVerdict, left: Left): RoleVerdict {
    const { model } = this;
    const pins = model.network.parts.get(id)!.pins as Readonly<Record<string, string | undefined>>;
    const node = pins[row.pin];
    if (row.standing !== 'good' || node === undefined) return row;
    const stretch = this.stretch(id, row, node);
    const suspects = left.likelyParts.filter((one) => stretch.has(one));
    const names = suspects.map((one) => model.network.parts.get(one)!.name);
    const works = carries(model, model.sound(this.condition).amps, node);
    const loaded = !works || left.flows(this.condition, node) >= FLOWS;
    if (loaded && suspects.length === 0) return row;
    const said = [
      row.sentence,
      loaded ? '' : NO_LOAD,
      names.length > 0 ? `Not cleared by it: ${joinWords(names)}.` : '',
    ];
    return { ...row, standing: 'unloaded', sentence: said.filter((words) => words !== '').join(' ') };
  }

  /** Parts that a pin speaks for: those before it on its runs, or behind it; for an output the contact itself. */
  private stretch(id: string, { role }: RoleVerdict, node: string): ReadonlySet<string> {
    if (role === 'output') return new Set([id]);
    const parts = this.runs.flatMap(({ stops, stations }) => {
      const at = stops.indexOf(node);
      if (at < 0) return [];
      return TOWARDS_EARTH.has(role) ? stations.slice(at) : stations.slice(0, at);
    });
    return new Set(parts.map(({ part }) => part));
  }
}

/** Of the relays on the runs, and of `others`; by part. */
export function dutiesOf(
  model: CircuitModel,
  runs: readonly Run[],
  others: readonly string[],
  condition: string,
): Record<string, RelayDuty> {
  const parts = [...runs.flatMap((run) => run.stations.map((station) => station.part)), ...others];
  return Object.fromEntries(
    [...new Set(parts)].flatMap((part) => {
      const duty = relayDuty(model, part, condition);
      return duty ? [[part, duty] as const] : [];
    }),
  );
}
