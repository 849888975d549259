/**
 * Faults that come and go: present or absent, as one hidden state, in each stretch of readings in which they could
 * not change.
 */
import type { Hypothesis } from '../hypotheses/hypothesis';
import type { JudgedReading } from './judgedReading';
import { either, PRESENT } from './likelihood';

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
    this.entries.forEach(({ episode }, index) => {
      const before = this.entries[index - 1]?.episode ?? episode;
      const last = stretches[stretches.length - 1];
      if (!last || (episode !== before && this.frees(h, before, episode))) {
        stretches.push([index, index + 1]);
      } else last[1] = index + 1;
    });
    return stretches;
  }

  /** Log weight of a fault that comes and goes; writes what each entry adds to it. */
  weigh(h: number, prior: number): number {
    let sum = prior;
    let present = 0;
    let absent = 0;
    let episode = this.entries[0]?.episode ?? 0;
    for (const entry of this.entries) {
      if (entry.episode !== episode) {
        if (this.frees(h, episode, entry.episode)) {
          sum += either(present, absent);
          present = 0;
          absent = 0;
        }
        episode = entry.episode;
      }
      const before = either(present, absent);
      if (isSeenGoing(entry)) {
        // That it comes and goes is just what such a fault does.
        present += Math.log(0.9);
        absent += Math.log(0.9);
      } else {
        const moved = this.ofLooseness(entry, h);
        present += moved ?? entry.present[h]!;
        absent += moved ?? entry.absent[h]!;
      }
      entry.log[h] = either(present, absent) - before;
    }
    return sum + either(present, absent);
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
    for (const entry of this.entries) {
      const [from, to] = [Math.min(entry.episode, episode), Math.max(entry.episode, episode)];
      if (from !== to && this.frees(h, from, to)) continue;
      if (isSeenGoing(entry)) continue;
      if (entry.prediction.ofLooseness) continue;
      present += entry.present[h]!;
      absent += entry.absent[h]!;
    }
    return 1 / (1 + Math.exp(absent - present));
  }
}

/** It was seen to come and go. */
function isSeenGoing(entry: JudgedReading): boolean {
  return entry.outcome < 0 && !('volts' in entry.reading.value);
}
