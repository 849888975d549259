/** What stands under a picture of a job: where, when, and what its marks point at. */
import type { Panel } from '../format';
import type { JobPhoto } from './draft';

export function photoWords({ panel, step, when, marks }: JobPhoto, panels: readonly Panel[]): string {
  const place = panel ? (panels.find(({ id }) => id === panel)?.name ?? panel) : (step ?? 'the job');
  return `${place}, ${when}${marks.map(({ words }, index) => ` · ${index + 1} ${words}`).join('')}`;
}
