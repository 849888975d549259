/** What is asked of the thread that reads maps, and what it answers. */
import type { Checked, CircuitFile, PanelSetFile } from '#core/format';

export type ReadMap = Checked<CircuitFile | PanelSetFile>;

export interface Asked {
  readonly what: 'map' | 'job';
  readonly text: string;
}
