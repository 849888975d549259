/** What this browser holds of a job, so that it opens without the server. */
import type { PriorTable } from '#core/diagnosis';
import type { CircuitFile, PanelSetFile } from '#core/format';
import type { SlotReading } from '#core/limits';
import type { Stock } from '#core/stock';

/** A job without its log, as `GET /api/jobs/<id>` gives it. */
export interface HeldJob {
  readonly id: string;
  readonly title: string;
  readonly openedAt: string;
  readonly vehicle: {
    readonly id: string;
    readonly name: string;
    readonly make: string;
    readonly model: string;
    readonly year: number | null;
    readonly plate: string;
    readonly nominalVolts: number | null;
    readonly odometerKm: number | null;
  };
  readonly circuits: readonly CircuitFile[];
  readonly panelSet: PanelSetFile | null;
  /** Weights that this shop has learned. */
  readonly priors: PriorTable;
  /** What the shop has in stock; left out by an earlier program. */
  readonly stock?: Stock;
  /** What earlier jobs read in the slots of the vehicle; left out by an earlier program. */
  readonly surveyed?: readonly SlotReading[];
  /** What an hour of the shop costs; null where nobody has said. */
  readonly rate?: number | null;
}
