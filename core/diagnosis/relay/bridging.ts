/** Which terminals of a relay a fused lead may join. */
import type { CircuitFile } from '../../format';
import { NO_DEED, type SafetyScene, safetyGate } from '../../safety';
import type { TakenReading } from '../evidence/readings';
import { fuseOfRelay } from '../kinds/fuseBefore';
import { hasRail, known } from './pinReadings';
import type { RelayDuty } from './relayDuty';

/** The circuit alone, nothing read and nothing complained of. */
const AS_IT_IS = (circuit: CircuitFile): SafetyScene => ({
  circuit,
  unbidden: false,
  lampVolts: [],
  highestVolts: null,
});

export type BridgeAnswer =
  | { readonly allowed: true; readonly sentence: string }
  | { readonly allowed: false; readonly sentence: string };

/**
 * Whether a fused lead may join two terminals of a relay: its contact only, known by a reading, never a coil pin, the
 * lead fused at no more than the circuit.
 */
export function mayBridge(
  circuit: CircuitFile,
  relayId: string,
  from: string,
  to: string,
  duty: RelayDuty,
  condition: string,
  readings: readonly TakenReading[],
): BridgeAnswer {
  const relay = circuit.parts.find((one) => one.id === relayId);
  const no = (sentence: string): BridgeAnswer => ({ allowed: false, sentence });
  if (relay?.kind !== 'relay') return no('That is no relay of this circuit.');
  const { reasons } = safetyGate({ ...NO_DEED, bridges: [relayId], behind: [relayId] }, AS_IT_IS(circuit));
  if (reasons.length > 0) return no(reasons.join(' '));
  const coil = [from, to].find((pin) => pin === '85' || pin === '86');
  if (coil) {
    return no(
      `${coil} is a coil pin. A lead there can burn the command or the loom: only the contact is bridged.`,
    );
  }
  if (from === to) return no('Choose two terminals.');
  const contact = duty.contacts.find(
    ({ supply, output }) => (supply === from && output === to) || (supply === to && output === from),
  );
  if (!contact || [from, to].includes('87a')) {
    return no('Only the contact that closes is bridged, 30 and 87, with the relay out.');
  }
  const { supply } = contact;
  const at = known(circuit, readings, relay.pins[supply] ?? '', condition);
  if (!hasRail(at, contact, circuit.nominalVolts)) {
    const seen = contact.rail === 'plus' ? 'live' : 'at earth';
    return no(`Which hole is ${supply} has to be seen by a reading first: read it ${seen}, then bridge.`);
  }
  const amps = fuseOfRelay(circuit, relayId);
  return {
    allowed: true,
    sentence:
      amps === null
        ? 'Relay out. A momentary lead, fused at no more than the circuit’s own fuse: read it first.'
        : `Relay out. A momentary lead, fused at no more than ${amps} A.`,
  };
}
