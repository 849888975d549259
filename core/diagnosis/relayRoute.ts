/**
 * A relay by the roles of its pins: feed, output, coil feed, coil return, each with a verdict of its own; which of its
 * terminals may be bridged; and the way through a relay or output that does not come out.
 */
import type { CircuitFile, CircuitPart, PartOf } from '../format/circuitSchema';
import type { TestRef } from '../format/readingsSchema';
import type { TakenReading } from './evidence';
import { fuseOfRelay } from './kinds/fuseBefore';

export type Role = 'feed' | 'coil-feed' | 'coil-return' | 'output' | 'request' | 'earth';
export type Standing = 'untested' | 'good' | 'watch' | 'bad';

export interface RoleVerdict {
  readonly role: Role;
  /** "Feed, 30". */
  readonly name: string;
  readonly pin: string;
  readonly standing: Standing;
  readonly sentence: string;
  /** The reading that would tell; null where the point may not be probed. */
  readonly test: TestRef | null;
}

/** Share of the nominal volts from which a point counts as fed, and below which as at earth (1 V on 12 V). */
const FED = 0.8;
const AT_EARTH = 1 / 12;
/** Volts lost over a contact at working current: below good, above worn. Contact limits do not scale. */
const DROP_GOOD = 0.1;
const DROP_WORN = 0.2;

type Known = { readonly volts: number; readonly exact: boolean } | null;

/** What the standing readings say of a point in a condition; a lamp says lit, dim or off only. */
function known(
  circuit: CircuitFile,
  readings: readonly TakenReading[],
  node: string,
  condition: string,
): Known {
  if (node === circuit.reference) return { volts: 0, exact: true };
  for (const { test, value, before } of readings.slice().reverse()) {
    if (before || !('condition' in test) || test.condition !== condition) continue;
    if (test.kind === 'volts' && test.node === node && test.against === circuit.reference && !test.pulled) {
      if ('volts' in value) return { volts: value.volts, exact: true };
    }
    if ((test.kind === 'lamp' || test.kind === 'led') && test.node === node && 'lamp' in value) {
      const share = { lit: 1, dim: 0.5, off: 0 }[value.lamp];
      return { volts: share * circuit.nominalVolts, exact: false };
    }
  }
  return null;
}

function tester(circuit: CircuitFile, node: string, condition: string): TestRef | null {
  const at = circuit.nodes.find((one) => one.id === node);
  if (node === circuit.reference || at?.probe === 'do-not-probe' || !at?.access?.length) return null;
  return { kind: 'volts', node, against: circuit.reference, condition };
}

const spoken = (volts: number) => `${volts.toFixed(Math.abs(volts) < 1 ? 2 : 1)} V`;

/**
 * The four verdicts of a relay in a condition in which it is commanded. A click says that the coil circuit works and
 * nothing of the contact; a live output says nothing of how much it can carry until the drop is read under load.
 */
export function relayVerdicts(
  circuit: CircuitFile,
  relayId: string,
  condition: string,
  readings: readonly TakenReading[],
): RoleVerdict[] {
  const relay = circuit.parts.find((one) => one.id === relayId);
  if (relay?.kind !== 'relay') return [];
  const nominal = circuit.nominalVolts;
  const fed = (at: Known) => at !== null && at.volts >= FED * nominal;
  const down = (at: Known) => at !== null && Math.abs(at.volts) < AT_EARTH * nominal;
  const outPin = relay.pins['87'] === undefined ? '87a' : '87';
  const at = (pin: '30' | '85' | '86' | '87' | '87a') =>
    known(circuit, readings, relay.pins[pin] ?? '', condition);
  const [feed, coilFeed, coilReturn, output] = [at('30'), at('86'), at('85'), at(outPin)];
  const clicks = readings.findLast(
    (one) => one.test.kind === 'click' && one.test.part === relayId && !one.before,
  )?.value;
  const clicked = clicks && 'click' in clicks ? clicks.click : null;
  const shared = (pin: '30' | '85' | '86') =>
    Object.entries(relay.pins).find(([other, node]) => other !== pin && node === relay.pins[pin])?.[0];
  const row = (
    role: Role,
    name: string,
    pin: '30' | '85' | '86' | '87' | '87a',
    standing: Standing,
    sentence: string,
  ): RoleVerdict => {
    const twin = pin === '30' || pin === '85' || pin === '86' ? shared(pin) : undefined;
    return {
      role,
      name: `${name}, ${pin}${twin ? ` (one pin with ${twin})` : ''}`,
      pin,
      standing,
      sentence,
      test: tester(circuit, relay.pins[pin] ?? '', condition),
    };
  };

  const feedRow =
    feed === null
      ? row('feed', 'Feed', '30', 'untested', 'Not read yet.')
      : fed(feed)
        ? row('feed', 'Feed', '30', 'good', `${spoken(feed.volts)}: fed.`)
        : row(
            'feed',
            'Feed',
            '30',
            'bad',
            `${spoken(feed.volts)}: not fed. Fuse and feed come before the relay.`,
          );

  // The coil's two sides are read against one another: either may be the one that is commanded.
  const coilRows = (() => {
    const across = coilFeed && coilReturn ? coilFeed.volts - coilReturn.volts : null;
    const heard = clicked === 'clicks' ? ' It clicks: the coil circuit works.' : '';
    const works = clicked === 'clicks' || (across !== null && Math.abs(across) >= FED * nominal);
    const upper =
      coilFeed === null
        ? works
          ? row('coil-feed', 'Coil feed', '86', 'good', heard.trim())
          : row('coil-feed', 'Coil feed', '86', 'untested', 'Not read yet.')
        : fed(coilFeed)
          ? row('coil-feed', 'Coil feed', '86', 'good', `${spoken(coilFeed.volts)} while commanded.${heard}`)
          : row(
              'coil-feed',
              'Coil feed',
              '86',
              'bad',
              `${spoken(coilFeed.volts)} while commanded: it does not come. Look at command, control fuse and wire.`,
            );
    const lower =
      coilReturn === null
        ? works
          ? row('coil-return', 'Coil return', '85', 'good', heard.trim())
          : row('coil-return', 'Coil return', '85', 'untested', 'Not read yet.')
        : down(coilReturn)
          ? row(
              'coil-return',
              'Coil return',
              '85',
              'good',
              `${spoken(coilReturn.volts)} while commanded: at earth.${heard}`,
            )
          : row(
              'coil-return',
              'Coil return',
              '85',
              'bad',
              `${spoken(coilReturn.volts)} while commanded: it does not fall. Look at switch, earth and wire, not at the relay.`,
            );
    return [upper, lower];
  })();

  const outRow = (() => {
    const name = 'Output';
    if (output === null) {
      const hint =
        clicked === 'clicks'
          ? 'Not read yet. It clicks, and that says nothing of the contact.'
          : 'Not read yet.';
      return row('output', name, outPin, 'untested', hint);
    }
    const coil = coilRows.every((one) => one.standing === 'good');
    if (!fed(output)) {
      const blame =
        fed(feed) && coil
          ? ' Fed and commanded, and nothing comes out: the contact is open.'
          : clicked === 'clicks' && fed(feed)
            ? ' It clicks and nothing comes out: a click does not pass a contact.'
            : ' Feed and coil come first.';
      return row('output', name, outPin, 'bad', `${spoken(output.volts)} while commanded.${blame}`);
    }
    if (!feed?.exact || !output.exact) {
      return row(
        'output',
        name,
        outPin,
        'watch',
        `Live while commanded. Volts at 30 and ${outPin} under load tell its drop.`,
      );
    }
    const drop = feed.volts - output.volts;
    const words = `${(drop * 1000).toFixed(0)} mV lost over the contact`;
    return drop > DROP_WORN
      ? row('output', name, outPin, 'bad', `${words}: worn.`)
      : drop >= DROP_GOOD
        ? row('output', name, outPin, 'watch', `${words}: watch it.`)
        : row('output', name, outPin, 'good', `${words}, if the load runs: good.`);
  })();
  return [feedRow, ...coilRows, outRow];
}

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
  condition: string,
  readings: readonly TakenReading[],
): BridgeAnswer {
  const relay = circuit.parts.find((one) => one.id === relayId);
  const no = (sentence: string): BridgeAnswer => ({ allowed: false, sentence });
  if (relay?.kind !== 'relay') return no('That is no relay of this circuit.');
  if (relay.safetyCritical) return no('It serves a safety function: the maker’s procedure only.');
  if (relay.fixed) return no('It does not come out, so its socket cannot be bridged.');
  const coil = [from, to].find((pin) => pin === '85' || pin === '86');
  if (coil) {
    return no(
      `${coil} is a coil pin. A lead there can burn the command or the loom: only the contact is bridged.`,
    );
  }
  if (from === to) return no('Choose two terminals.');
  const pair = [from, to].sort().join(' ');
  if (pair !== '30 87') return no('Only 30 and 87 are bridged, with the relay out.');
  const at30 = known(circuit, readings, relay.pins['30'], condition);
  if (at30 === null || at30.volts < FED * circuit.nominalVolts) {
    return no('Which hole is 30 has to be seen by a reading first: read it live, then bridge.');
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

/** Parts of these runs that switch and do not come out: outputs of modules, soldered relays. */
export function fixedSwitches(circuit: CircuitFile, concerned: ReadonlySet<string>): CircuitPart[] {
  return circuit.parts.filter(
    (part) =>
      concerned.has(part.id) &&
      (part.kind === 'module-output' || (part.kind === 'relay' && part.fixed === true)),
  );
}

/** A module that switches: its feed, its earth, what is asked of it, what comes out; in this order. */
export function moduleVerdicts(
  circuit: CircuitFile,
  module: PartOf<'module-output'>,
  condition: string,
  readings: readonly TakenReading[],
): RoleVerdict[] {
  const nominal = circuit.nominalVolts;
  const read = (pin: string) => known(circuit, readings, module.pins[pin] ?? '', condition);
  const row = (role: Role, name: string, pin: string, standing: Standing, sentence: string): RoleVerdict => ({
    role,
    name,
    pin,
    standing,
    sentence,
    test: tester(circuit, module.pins[pin] ?? '', condition),
  });
  const level = (role: Role, name: string, pin: string, high: boolean, good: string, bad: string) => {
    const at = read(pin);
    if (at === null)
      return row(role, name, pin, 'untested', 'Not read yet. Meter only: no lamp on a module.');
    const right = high ? at.volts >= FED * nominal : Math.abs(at.volts) < AT_EARTH * nominal;
    return row(role, name, pin, right ? 'good' : 'bad', `${spoken(at.volts)}: ${right ? good : bad}`);
  };
  const asked = module.rule.flatMap((line) => Object.entries(line.inputs ?? {}));
  const inputs = asked.filter(([pin], index) => asked.findIndex(([other]) => other === pin) === index);
  return [
    level('feed', 'Feed of the module', 'plus', true, 'fed.', 'not fed. Its fuse and feed come first.'),
    level(
      'earth',
      'Earth of the module',
      'minus',
      false,
      'at earth.',
      'not at earth. Its earth comes first.',
    ),
    ...inputs.map(([pin, wanted]) =>
      level(
        'request',
        `Request, ${pin}`,
        pin,
        wanted === 'high',
        'the request arrives.',
        'the request does not arrive. Look at switch and request wire.',
      ),
    ),
    level(
      'output',
      'Output',
      'out',
      module.side === 'high',
      'switched on. From here on it is wire, plug, load and earth.',
      'fed and asked, and nothing comes out: coding, a lock-out, or the module itself. Read its own fault memory.',
    ),
  ];
}

export interface CostLine {
  readonly name: string;
  readonly minutes: number;
  readonly price: number;
  readonly total: number;
}

/** Two ways compared, own labour included: mending at the part, and the whole assembly. Prices in the shop's money. */
export function compareCosts(
  ratePerHour: number,
  ways: readonly { readonly name: string; readonly minutes: number; readonly price: number }[],
): { readonly lines: readonly CostLine[]; readonly cheapest: string } {
  const lines = ways.map((way) => ({
    ...way,
    total: Math.round((way.price + (way.minutes / 60) * ratePerHour) * 100) / 100,
  }));
  const cheapest = lines.reduce((least, line) => (line.total < least.total ? line : least), lines[0]!);
  return { lines, cheapest: cheapest.name };
}
