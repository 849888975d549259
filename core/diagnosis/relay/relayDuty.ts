/**
 * What a relay has to do in a condition when all is well: whether its coil is commanded, which side of the coil is fed,
 * and for each contact which terminal brings the supply and which carries it on. Found by solving the circuit as drawn,
 * with the relay in its place and with it out; nothing is taken from the terminal numbers alone, since contacts also
 * switch earths, reverse motors, and coils are wired either way round.
 */

import type { BranchRole } from '../../circuit';
import { intervene } from '../../hands';
import { type CircuitModel, combineAlterations } from '../../network';

type CoilPin = '85' | '86';
type ContactPin = '30' | '87' | '87a' | '87b';

export interface ContactDuty {
  readonly supply: ContactPin;
  readonly output: ContactPin;
  /** What the supply brings: the battery's plus side, or earth. */
  readonly rail: 'plus' | 'earth';
  /** Whether the supply is there in this condition; a feed of the key is not, with the key off. */
  readonly supplied: boolean;
  /** Whether this contact is to be closed in this condition. */
  readonly closed: boolean;
  /** The output has what the contact would bring with the relay out, too: fed from elsewhere as well. */
  readonly otherwise: boolean;
}

export interface RelayDuty {
  readonly commanded: boolean;
  /** The side of the coil with the higher volts while commanded; 86 where it is not. */
  readonly coilFeed: CoilPin;
  readonly contacts: readonly ContactDuty[];
}

/** Share of the nominal volts from which a point counts as fed, and below which as at earth (1 V on 12 V). */
export const FED = 0.8;
export const AT_EARTH = 1 / 12;

/** What is put on a terminal to tell what lies behind it, ohm; what gives way more than this is no supply. */
const PROBE_OHMS = 10;
/** Parts of a circuit that use current: behind a supply lies none of them. */
const CONSUMERS: ReadonlySet<BranchRole> = new Set(['load', 'coil', 'internal']);

/** The duty of a relay of the circuit; null where the part is no relay of this kind. */
export function relayDuty(model: CircuitModel, relayId: string, condition: string): RelayDuty | null {
  const { network, circuit } = model;
  const relay = network.parts.get(relayId);
  if (relay?.kind !== 'relay') return null;
  const nominal = circuit.nominalVolts;
  const sound = model.sound(condition);
  const at = (pin: CoilPin | ContactPin) => network.nodeIndex.get(relay.pins[pin] ?? '')!;
  const sensor = network.sensors.findIndex((one) => one.part === relayId && one.label === 'coil');
  const pulledIn = sound.sensed[sensor] === 1;
  const overCoil = sound.volts[at('86')]! - sound.volts[at('85')]!;
  const commanded = Math.abs(overCoil) >= nominal / 2;
  const out = intervene(network, [], [{ kind: 'pulled', part: relayId }]);
  const without = model.solve(condition, out);

  /** Whether a source or the body lies behind a terminal while the relay is out, and not a load or nothing. */
  const bringsSupply = (pin: ContactPin): boolean => {
    const node = at(pin);
    if (node === network.datum) return true;
    const bridge = { a: node, b: network.datum, ohms: PROBE_OHMS, emfVolts: nominal / 2 };
    const probed = model.solve(condition, combineAlterations(out, { changes: [], bridges: [bridge] }));
    const amps = Math.abs(probed.amps[network.branches.length]!);
    const moved = Math.abs(probed.volts[node]! - without.volts[node]!);
    if (amps * PROBE_OHMS <= moved) return false;
    return network.branches.every(
      ({ role }, branch) =>
        !CONSUMERS.has(role) || Math.abs(probed.amps[branch]! - without.amps[branch]!) < amps / 2,
    );
  };
  const brought = new Map<ContactPin, boolean>();
  const isSupply = (pin: ContactPin) => {
    if (!brought.has(pin)) brought.set(pin, bringsSupply(pin));
    return brought.get(pin)!;
  };

  const contacts = (['87', '87b', '87a'] as const).flatMap((pin): ContactDuty[] => {
    if (relay.pins[pin] === undefined) return [];
    const turned = isSupply(pin) && !isSupply('30');
    const [supply, output]: [ContactPin, ContactPin] = turned ? [pin, '30'] : ['30', pin];
    const volts = without.volts[at(supply)]!;
    const rail = isSupply(supply) && Math.abs(volts) < AT_EARTH * nominal ? 'earth' : 'plus';
    const has = (v: number) => (rail === 'plus' ? v >= FED * nominal : Math.abs(v) < AT_EARTH * nominal);
    const contact = network.branches.findIndex((one) => one.part === relayId && one.label === `30-${pin}`);
    const across = sound.volts[at('30')]! - sound.volts[at(pin)]!;
    const carried = sound.amps[contact]! * network.branches[contact]!.ohms;
    const timed = relay.timing !== undefined;
    return [
      {
        supply,
        output,
        rail,
        supplied: isSupply(supply) && has(volts),
        closed: timed ? Math.abs(across - carried) < 1e-3 : pulledIn === (pin !== '87a'),
        otherwise: isSupply(output) && has(without.volts[at(output)]!),
      },
    ];
  });
  return {
    commanded,
    coilFeed: commanded && overCoil < 0 ? '85' : '86',
    contacts,
  };
}
