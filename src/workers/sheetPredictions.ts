/**
 * What every fault of a circuit would show, as the thread of the sheets keeps it from one sheet to the next: in memory, by
 * everything in the circuit and the complaint, so that whoever asks brings all that it depends on. It goes with the thread.
 */
import { createHash } from 'node:crypto';
import { type Complaint, type KeptPredictions, packPredictions, unpackPredictions } from '#core/diagnosis';
import type { CircuitFile } from '#core/format';
import type { PredictionStore } from '#core/log';

export class PredictionsInMemory implements PredictionStore {
  /** By use, the oldest first. */
  private readonly packed = new Map<string, Uint8Array>();

  /** `mostBytes` is held at the most; what was used longest ago makes room. */
  constructor(private readonly mostBytes = 64 * 1024 * 1024) {}

  of(circuit: CircuitFile, complaint: Complaint): readonly KeptPredictions[] {
    const key = keyOf(circuit, complaint);
    const found = this.packed.get(key);
    const kept = found && unpackPredictions(found);
    if (!kept) return [];
    this.packed.delete(key);
    this.packed.set(key, found);
    return [kept];
  }

  keep(circuit: CircuitFile, complaint: Complaint, predictions: KeptPredictions): void {
    const key = keyOf(circuit, complaint);
    this.packed.delete(key);
    this.packed.set(key, packPredictions(predictions));
    let held = this.heldBytes;
    for (const [oldest, { length }] of this.packed) {
      if (held <= this.mostBytes) break;
      this.packed.delete(oldest);
      held -= length;
    }
  }

  get heldBytes(): number {
    return [...this.packed.values()].reduce((sum, { length }) => sum + length, 0);
  }
}

function keyOf(circuit: CircuitFile, { function: name, condition }: Complaint): string {
  return createHash('sha256')
    .update(JSON.stringify([circuit, name, condition]))
    .digest('hex');
}
