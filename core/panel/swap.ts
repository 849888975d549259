/** Relays of a vehicle that may be exchanged for a test: exact equals, where the gate of safety lets both be moved. */
import type { CircuitFile, CircuitPart } from '../format';
import { NO_DEED, safetyGate } from '../safety';

type Relay = Extract<CircuitPart, { kind: 'relay' }>;

export interface SwapPair {
  readonly suspect: string;
  readonly donor: string;
  /** Functions that must be seen to work again before the job may be closed. */
  readonly functions: readonly string[];
  /** Equal by the number printed on both; otherwise only by what the map knows, and the numbers are compared first. */
  readonly sameNumber: boolean;
}

/** Why two relays are not equals; null when they are. One printed number on both is enough; else all must agree. */
export function swapBar(one: Relay, other: Relay): string | null {
  if (one.partNumber && one.partNumber === other.partNumber) return null;
  if (form(one) !== form(other)) return 'their contacts have different forms';
  if (pinLayout(one) !== pinLayout(other)) return 'their pins are laid out differently';
  if ((one.footprint ?? '') !== (other.footprint ?? '')) return 'their pins sit in different places';
  if ((one.coilOhms ?? 0) !== (other.coilOhms ?? 0)) return 'their coils differ';
  if ((one.suppression ?? 'none') !== (other.suppression ?? 'none')) {
    return 'their coils are suppressed differently';
  }
  // Each stands in the other's place: neither contact may be the weaker one.
  if (one.contactRatingAmps !== other.contactRatingAmps) return 'their contacts carry different currents';
  if (one.timing?.mode !== other.timing?.mode) return 'one of them keeps time';
  if (one.timing?.seconds !== other.timing?.seconds) return 'they keep different times';
  return null;
}

function form(relay: Relay): string {
  return ['87', '87a', '87b']
    .filter((pin) => (relay.pins as Readonly<Record<string, string>>)[pin])
    .join(' ');
}

function pinLayout(relay: Relay): string {
  return Object.keys(relay.pins).sort().join(' ');
}

/** Relays that may stand in for a suspect one, with the functions that both feed. */
export function swapPairs(
  circuit: CircuitFile,
  suspectId: string,
  functionsOf: (part: string) => readonly string[],
  unbidden = false,
): SwapPair[] {
  const relays = circuit.parts.filter((part): part is Relay => part.kind === 'relay');
  const suspect = relays.find((part) => part.id === suspectId);
  if (!suspect) return [];
  const scene = { circuit, unbidden, lampVolts: [], highestVolts: null };
  return relays
    .filter((other) => other.id !== suspectId && swapBar(suspect, other) === null)
    .filter((other) => {
      const both = [suspectId, other.id];
      return safetyGate({ ...NO_DEED, exchanges: both, behind: both }, scene).allowed;
    })
    .map((other) => ({
      suspect: suspectId,
      donor: other.id,
      functions: [...new Set([...functionsOf(suspectId), ...functionsOf(other.id)])],
      sameNumber: suspect.partNumber !== undefined && suspect.partNumber === other.partNumber,
    }));
}
