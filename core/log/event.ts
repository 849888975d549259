/** An entry as the screens hold it. */
import type { EventBody } from '../format';

/** Confirmed by the server (`seq`) or still on its way. */
export interface LogEvent {
  readonly id: string;
  readonly seq: number | null;
  readonly person: string;
  readonly madeAt: string;
  readonly clientOrder: number;
  readonly body: EventBody;
}

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
