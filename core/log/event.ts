/** An entry as the screens hold it. */
import type { EventBody } from '../format';

/** Confirmed by the server (`seq`) or still on its way. */
export interface LogEvent {
  readonly id: string;
  readonly seq: number | null;
  /** Who recorded it, as it is shown. */
  readonly person: string;
  /** The name that a job file gave, where it came in with one. */
  readonly fromFile?: string;
  /** By the clock of the device it was made on. */
  readonly madeAt: string;
  /** When the server had it; not there while it waits to be sent. */
  readonly arrivedAt?: string;
  readonly clientOrder: number;
  readonly body: EventBody;
}

/** Whose an entry is that came in with a job file: nobody here has signed it but who brought it in. */
export const fromFileWords = (named: string, broughtBy: string) =>
  `${named} (from a file, imported by ${broughtBy})`;

export interface LogEntry {
  readonly event: LogEvent;
  /** Struck by a later correction, with its reason. */
  readonly struck: { readonly reason: string } | null;
}

export function cellKey(functionId: string, conditionId: string): string {
  return `${functionId}|${conditionId}`;
}

/** Confirmed events in the server's order, then those on their way in the client's. */
export function inOrder(events: readonly LogEvent[]): LogEvent[] {
  return events
    .slice()
    .sort(
      (one, other) =>
        (one.seq ?? Number.MAX_SAFE_INTEGER) - (other.seq ?? Number.MAX_SAFE_INTEGER) ||
        one.clientOrder - other.clientOrder,
    );
}
