/**
 * Faults that come and go: present or absent, as one hidden state, in each stretch of readings in which they could
 * not change.
 */
import type { Hypothesis } from '../hypotheses/hypothesis';
import type { JudgedReading } from './judgedReading';
import { either, PRESENT } from './likelihood';

/** What an entry says of a fault while it is there and while it is away, log-likelihood. */
export interface BothWays {
  readonly present: (entry: JudgedReading, h: number) => number;
  readonly absent: (entry: JudgedReading, h: number) => number;
}

interface Sums {
  /** Of the stretches that are over. */
  sum: number;
  /** Of the stretch that goes on. */
  present: number;
  absent: number;
}

/** What the entries before a place have come to, by hypothesis: they do not change until all is judged again. */
export class Settled {
  private readonly sums = new Map<number, Readonly<Sums>>();

  constructor(readonly until: number) {}

  of(h: number): Readonly<Sums> | undefined {
    return this.until === 0 ? undefined : this.sums.get(h);
  }

  keep(h: number, sums: Readonly<Sums>): void {
    this.sums.set(h, sums);
  }

  forget(h: number): void {
    this.sums.delete(h);
  }
}

export class ComesAndGoes {
  /** Parts whose state was left open again when an episode began; null for all. */
  private readonly freed: (ReadonlySet<string> | null)[] = [];

  /** `entries` in canonical order; read live. */
  constructor(
    private readonly hypotheses: readonly Hypothesis[],
    private readonly entries: readonly JudgedReading[],
  ) {}

  /** An episode begins, with the parts whose state it leaves open again. */
  begin(episode: number, freed: ReadonlySet<string> | null): void {
    this.freed[episode] = freed;
  }

  /** Entries in stretches in which a fault that comes and goes could not change: from, until. */
  stretches(h: number): (readonly [number, number])[] {
    const stretches: [number, number][] = [];
    this.entries.forEach((_, index) => {
      const last = stretches[stretches.length - 1];
      if (!last || this.freesBefore(h, index)) stretches.push([index, index + 1]);
      else last[1] = index + 1;
    });
    return stretches;
  }

  /**
   * Log weight of a fault that comes and goes; writes what each entry adds to it. `present` and `absent` are what each entry
   * says with the fault there and away. `settled` has what the entries before a place have come to, where it is known.
   */
  weigh(h: number, prior: number, { present, absent }: BothWays, settled: Settled): number {
    const sums = settled.of(h);
    const at = sums ? settled.until : 0;
    const run = sums ? { ...sums } : { sum: 0, present: 0, absent: 0 };
    for (let index = at; index < this.entries.length; index++) {
      if (index === settled.until) settled.keep(h, { ...run });
      if (index > 0 && this.freesBefore(h, index)) {
        run.sum += either(run.present, run.absent);
        run.present = 0;
        run.absent = 0;
      }
      const entry = this.entries[index]!;
      const before = either(run.present, run.absent);
      if (isSeenGoing(entry)) {
        // That it comes and goes is just what such a fault does.
        run.present += Math.log(0.9);
        run.absent += Math.log(0.9);
      } else {
        const moved = this.ofLooseness(entry, h);
        run.present += moved ?? present(entry, h);
        run.absent += moved ?? absent(entry, h);
      }
      entry.log[h] = either(run.present, run.absent) - before;
    }
    return prior + run.sum + either(run.present, run.absent);
  }

  /** Whether it may have changed between the entry before a place and the one there. */
  private freesBefore(h: number, index: number): boolean {
    const [before, now] = [this.entries[index - 1]!.episode, this.entries[index]!.episode];
    return before !== now && this.frees(h, before, now);
  }

  /** Moving a part asks whether it is loose, not whether it fails just now. */
  private ofLooseness({ prediction, outcome, wrong }: JudgedReading, h: number): number | null {
    if (!prediction.ofLooseness || outcome < 0) return null;
    const { outcomes, clean } = prediction;
    return Math.log((1 - wrong) * clean[h * outcomes + outcome]! + wrong / outcomes);
  }

  /** Whether a fault that comes and goes may have changed from one episode to another. */
  private frees(h: number, from: number, to: number): boolean {
    const { parts } = this.hypotheses[h]!;
    for (let episode = from + 1; episode <= to; episode++) {
      const freed = this.freed[episode];
      if (freed === undefined) continue;
      if (freed === null || parts.some((part) => freed.has(part))) return true;
    }
    return false;
  }

  /**
   * Chance that a fault that comes and goes was there in an episode, the last where none is given, by what was read in
   * the stretch in which it could not change.
   */
  present(h: number, episode = this.entries[this.entries.length - 1]?.episode): number {
    const { lasting } = this.hypotheses[h]!;
    if (lasting === null || episode === undefined) return PRESENT;
    let present = Math.log(PRESENT);
    let absent = Math.log(1 - PRESENT);
    const { entries } = this;
    const middle = entries.findLastIndex((entry) => entry.episode <= episode);
    /** False where it may have changed since. */
    const reaches = (entry: JudgedReading) => {
      const [from, to] = [Math.min(entry.episode, episode), Math.max(entry.episode, episode)];
      if (from !== to && this.frees(h, from, to)) return false;
      if (!isSeenGoing(entry) && !entry.prediction.ofLooseness) {
        present += entry.present[h]!;
        absent += entry.absent[h]!;
      }
      return true;
    };
    for (let index = middle; index >= 0 && reaches(entries[index]!); index--);
    for (let index = middle + 1; index < entries.length && reaches(entries[index]!); index++);
    return 1 / (1 + Math.exp(absent - present));
  }
}

/** It was seen to come and go. */
function isSeenGoing(entry: JudgedReading): boolean {
  return entry.outcome < 0 && !('volts' in entry.reading.value);
}
