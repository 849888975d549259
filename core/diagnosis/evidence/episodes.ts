/**
 * Splits the readings of a job into episodes: a new one begins when the symptom changes, and when something was
 * touched that may be what comes and goes.
 */
import type { CircuitModel } from '../../network';
import { kindOf } from '../kinds';
import { fittedKey } from './fitted';
import type { Episode, TakenReading } from './readings';

interface ComplaintOf {
  readonly function: string;
  readonly condition: string;
}

/** The parts and everything that is joined to them: what moves with them. */
function neighbourhood(model: CircuitModel, parts: readonly string[]): ReadonlySet<string> {
  const pinsOf = (id: string) => Object.values(model.network.parts.get(id)?.pins ?? {}) as string[];
  const nodes = new Set(parts.flatMap(pinsOf));
  nodes.delete(model.circuit.reference);
  return new Set([
    ...parts,
    ...model.circuit.parts
      .filter((part) => (Object.values(part.pins) as string[]).some((node) => nodes.has(node)))
      .map((part) => part.id),
  ]);
}

/** Follows the readings of one job, one after another. */
export class EpisodeCounter {
  private number = 0;
  private freed: ReadonlySet<string> | null = null;
  private symptom: string | null = null;
  private changed = 0;
  private phase = ' / ';

  constructor(
    private readonly model: CircuitModel,
    private readonly complaint: ComplaintOf,
  ) {}

  /** The episode of the next reading. */
  next(reading: TakenReading): Episode {
    const phase = `${(reading.before ?? []).join(' ')} / ${fittedKey(reading.fitted)}`;
    if (phase !== this.phase) {
      this.phase = phase;
      this.begin(null);
    }
    const { test, value } = reading;
    const asks =
      test.kind === 'function' &&
      test.function === this.complaint.function &&
      test.condition === this.complaint.condition &&
      'state' in value;
    if (asks) {
      if (this.symptom !== null && this.symptom !== value.state) {
        this.begin(null);
        this.changed = this.number;
      }
      this.symptom = value.state;
    }
    const episode = { number: this.number, freed: this.freed };
    const reported = asks && reading.sure?.tester === false;
    const touched = kindOf(test).touches?.(test) ?? [];
    // What was reported is past; what was touched may have come right, or wrong.
    if (reported) this.begin(null);
    else if (touched.length > 0) this.begin(neighbourhood(this.model, touched));
    return episode;
  }

  /** The episode in which the symptom last changed. */
  get changedIn(): number {
    return this.changed;
  }

  /** What the complaint's function did when last looked at in this episode; null when nobody looked. */
  get symptomNow(): string | null {
    return this.symptom;
  }

  /** The episode that a reading taken now would belong to. */
  get current(): number {
    return this.number;
  }

  private begin(freed: ReadonlySet<string> | null): void {
    this.number += 1;
    this.freed = freed;
    if (freed === null) this.symptom = null;
  }
}
