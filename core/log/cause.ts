/** When a cause that was settled is open again: a fuse loaded too much, or one that opened a second time. */

import type { CircuitFile } from '../format';
import { RUNNING_SHARE } from '../limits';
import { partName } from './names';
import { shownOpen } from './openedFuses';
import { percentOfRating } from './percentOfRating';
import type { JobState } from './state';

/** Whether a running current is more than a fuse should carry for good. */
export function overloaded(amps: number, ratingAmps: number): boolean {
  return amps / ratingAmps > RUNNING_SHARE;
}

/** What opens the cause again, each in words; only what was read after the cause was written down counts. */
export function causeReopened({ entries }: Pick<JobState, 'entries'>, circuit: CircuitFile | null): string[] {
  const standing = entries.filter(({ struck }) => !struck).map(({ event }) => event.body);
  const found = standing.findLastIndex(({ kind }) => kind === 'found');
  if (found < 0) return [];
  const repaired = standing.findLastIndex(({ kind }) => kind === 'repair');
  const again = new Map<string, string>();
  for (const [at, body] of standing.entries()) {
    if (at < found) continue;
    if (body.kind === 'fuse-current' && body.phase === 'running') {
      const name = partName(circuit, body.fuse);
      if (overloaded(body.amps, body.ratingAmps)) {
        again.set(
          `load ${body.fuse}`,
          `${name} carries ${body.amps} A running, ${percentOfRating(body.amps, body.ratingAmps)} % of its ${body.ratingAmps} A; more than ${RUNNING_SHARE * 100} % is no load to leave it with`,
        );
      } else again.delete(`load ${body.fuse}`);
    }
    if (body.kind === 'reading' && at > repaired && repaired >= 0) {
      const open = shownOpen(body);
      if (open !== null && circuit?.parts.some((part) => part.id === open && part.kind === 'fuse'))
        again.set(`open ${open}`, `${partName(circuit, open)} opened again after the repair`);
    }
  }
  return [...again.values()];
}
