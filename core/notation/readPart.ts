/** A part as its words were read, before it is made. */
import type { PartKind } from '../format';
import type { Way } from './words';

export interface ReadPart {
  readonly id: string;
  readonly kind: PartKind;
  readonly line: number;
  readonly from: number;
  readonly to: number;
  /** Fields of the file, as said. */
  readonly fields: Record<string, unknown>;
  /** Point of each pin, as a key of `Pieces`. */
  readonly pins: Map<string, number>;
  /** Ways by which it was gone through, in this order. */
  readonly ways: Way[];
  /** Of a splice: the leg that is looked at next when one without a name is needed. */
  nextLeg: number;
}
