/** What the server and the process that makes sheets say to each other. */
import type { Sheet } from '#core/log';
import type { SheetAsked } from './sheet.thread';

export type SheetTask = SheetAsked & { readonly as?: 'lines' };
export type SheetMade = Uint8Array | Sheet;

export type ToSheets =
  | { readonly id: number; readonly task: SheetTask }
  /** Nobody waits for it any longer. */
  | { readonly id: number; readonly given: 'up' };

export type FromSheets =
  | { readonly id: number; readonly made: SheetMade }
  | { readonly id: number; readonly failed: string };
