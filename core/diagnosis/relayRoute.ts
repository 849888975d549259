/**
 * A relay by the roles of its pins: feed, output, coil feed, coil return, each with a verdict of its own; which of its
 * terminals may be bridged; and the way through a relay or output that does not come out.
 */
import type { CircuitFile, CircuitPart, PartOf } from '../format/circuitSchema';
import type { TestRef } from '../format/readingsSchema';
import type { TakenReading } from './evidence';
import { fuseOfRelay } from './kinds/fuseBefore';
import { AT_EARTH, type ContactDuty, FED, type RelayDuty } from './relayDuty';

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
 * The verdicts of a relay in a condition, each role by itself and against its duty there. A click says that the coil
 * circuit works and nothing of the contact; a live output says nothing of how much it can carry until the drop is read
 * under load.
 */
export function relayVerdicts(
  circuit: CircuitFile,
  relayId: string,
  duty: RelayDuty,
  condition: string,
  readings: readonly TakenReading[],
): RoleVerdict[] {
  const relay = circuit.parts.find((one) => one.id === relayId);
  if (relay?.kind !== 'relay') return [];
  const pins: Readonly<Record<string, string | undefined>> = relay.pins;
  const at = (pin: string) => known(circuit, readings, pins[pin] ?? '', condition);
  const row = (role: Role, name: string, pin: string, [standing, sentence]: Judged): RoleVerdict => {
    const twin = Object.keys(pins).find((other) => other !== pin && pins[other] === pins[pin]);
    return {
      role,
      name: `${name}, ${pin}${twin ? ` (one pin with ${twin})` : ''}`,
      pin,
      standing,
      sentence,
      test: tester(circuit, pins[pin] ?? '', condition),
    };
  };
  const click = readings.findLast(
    (one) => one.test.kind === 'click' && one.test.part === relayId && !one.before,
  )?.value;
  const clicks = click !== undefined && 'click' in click && click.click === 'clicks';
  const coil = judgeCoil(circuit.nominalVolts, relay, duty, at, clicks);
  const coilReturn = duty.coilFeed === '86' ? '85' : '86';
  const coilWorks = coil.feed[0] === 'good' && coil.return[0] === 'good';

  const supplies = firstOfEach(duty.contacts, (one) => one.supply);
  const outputs = firstOfEach(
    [...duty.contacts].sort((one, other) => Number(other.closed) - Number(one.closed)),
    (one) => one.output,
  );
  return [
    ...supplies.map((contact) =>
      row(
        'feed',
        contact.rail === 'plus' ? 'Feed' : 'Earth side',
        contact.supply,
        judgeSupply(circuit.nominalVolts, contact, at(contact.supply)),
      ),
    ),
    row('coil-feed', 'Coil feed', duty.coilFeed, coil.feed),
    row('coil-return', 'Coil return', coilReturn, coil.return),
    ...outputs.map((contact) =>
      row(
        'output',
        'Output',
        contact.output,
        judgeOutput(circuit.nominalVolts, contact, at(contact.supply), at(contact.output), coilWorks, clicks),
      ),
    ),
  ];
}

type Judged = readonly [standing: Standing, sentence: string];

const UNREAD: Judged = ['untested', 'Not read yet.'];

function firstOfEach<T>(all: readonly T[], key: (one: T) => string): T[] {
  return all.filter((one, index) => all.findIndex((other) => key(other) === key(one)) === index);
}

const isFed = (at: Known, nominal: number) => at !== null && at.volts >= FED * nominal;
const isEarthed = (at: Known, nominal: number) => at !== null && Math.abs(at.volts) < AT_EARTH * nominal;
const hasRail = (at: Known, { rail }: ContactDuty, nominal: number) =>
  rail === 'plus' ? isFed(at, nominal) : isEarthed(at, nominal);

function judgeSupply(nominal: number, contact: ContactDuty, at: Known): Judged {
  if (at === null) return UNREAD;
  const volts = spoken(at.volts);
  const here = hasRail(at, contact, nominal);
  if (!contact.supplied) {
    return here
      ? ['watch', `${volts}: live, although it should not be in this state.`]
      : ['good', `${volts}: not live in this state, as it should be.`];
  }
  if (contact.rail === 'earth') {
    return here
      ? ['good', `${volts}: at earth.`]
      : ['bad', `${volts}: not at earth. Earth and wire come before the relay.`];
  }
  return here
    ? ['good', `${volts}: fed.`]
    : ['bad', `${volts}: not fed. Fuse and feed come before the relay.`];
}

/** The coil's two sides are read against one another: either may be the one that is commanded. */
function judgeCoil(
  nominal: number,
  relay: PartOf<'relay'>,
  duty: RelayDuty,
  at: (pin: string) => Known,
  clicks: boolean,
): { readonly feed: Judged; readonly return: Judged } {
  const feed = at(duty.coilFeed);
  const back = at(duty.coilFeed === '86' ? '85' : '86');
  const across = feed && back ? feed.volts - back.volts : null;
  if (!duty.commanded) {
    const judge = (one: Known): Judged => {
      if (one === null) return UNREAD;
      const volts = spoken(one.volts);
      if (across === null) return ['watch', `${volts} at rest. The other side of the coil tells the rest.`];
      if (Math.abs(across) >= FED * nominal) {
        return ['bad', `${volts}: the coil is fed although it should rest. Look at command and wire.`];
      }
      return Math.abs(across) < AT_EARTH * nominal
        ? ['good', `${volts}: no volts over the coil, at rest as it should be.`]
        : ['watch', `${volts}: ${spoken(Math.abs(across))} over a coil that should rest.`];
    };
    return { feed: judge(feed), return: judge(back) };
  }
  const heard = clicks ? ' It clicks: the coil circuit works.' : '';
  const unread: Judged =
    clicks || (across !== null && Math.abs(across) >= FED * nominal) ? ['good', heard.trim()] : UNREAD;
  if (across !== null && across <= -FED * nominal) {
    const words = `${spoken(feed!.volts)} and ${spoken(back!.volts)}: the two sides of the coil are exchanged`;
    const judged: Judged =
      relay.suppression === 'diode'
        ? ['bad', `${words}, and its diode shorts the command. Put them right.`]
        : ['good', `${words}; without a diode it works either way round.`];
    return { feed: judged, return: judged };
  }
  return {
    feed:
      feed === null
        ? unread
        : isFed(feed, nominal)
          ? ['good', `${spoken(feed.volts)} while commanded.${heard}`]
          : [
              'bad',
              `${spoken(feed.volts)} while commanded: it does not come. Look at command, control fuse and wire.`,
            ],
    return:
      back === null
        ? unread
        : isEarthed(back, nominal)
          ? ['good', `${spoken(back.volts)} while commanded: at earth.${heard}`]
          : [
              'bad',
              `${spoken(back.volts)} while commanded: it does not fall. Look at switch, earth and wire, not at the relay.`,
            ],
  };
}

function judgeOutput(
  nominal: number,
  contact: ContactDuty,
  supply: Known,
  output: Known,
  coilWorks: boolean,
  clicks: boolean,
): Judged {
  if (output === null) {
    return clicks && contact.closed
      ? ['untested', 'Not read yet. It clicks, and that says nothing of the contact.']
      : UNREAD;
  }
  const volts = spoken(output.volts);
  const here = hasRail(output, contact, nominal);
  const brings = contact.rail === 'plus' ? 'live' : 'at earth';
  if (!contact.closed) {
    if (!here) return ['good', `${volts}: not ${brings} at rest, as it should be.`];
    return contact.otherwise
      ? ['watch', `${volts}: ${brings} from elsewhere too, so it says nothing of the contact.`]
      : [
          'bad',
          `${volts}: ${brings} although the contact should be open. Take the relay out: what stays is fed from elsewhere, what goes was a stuck contact or the command.`,
        ];
  }
  if (!contact.supplied) return ['watch', `${volts}. Its supply is off in this state, so it says nothing.`];
  if (!here) {
    const blame =
      hasRail(supply, contact, nominal) && coilWorks
        ? 'Fed and commanded, and nothing comes out: the contact is open.'
        : clicks && hasRail(supply, contact, nominal)
          ? 'It clicks and nothing comes out: a click does not pass a contact.'
          : 'Feed and coil come first.';
    return ['bad', `${volts} where the contact should be closed. ${blame}`];
  }
  if (contact.otherwise) {
    return [
      'watch',
      `${volts}: ${brings} from elsewhere too, so only a load tells what the contact carries.`,
    ];
  }
  if (!supply?.exact || !output.exact) {
    return [
      'watch',
      `${volts}: ${brings}. Volts at ${contact.supply} and ${contact.output} under load tell its drop.`,
    ];
  }
  const drop = contact.rail === 'plus' ? supply.volts - output.volts : output.volts - supply.volts;
  const words = `${(drop * 1000).toFixed(0)} mV lost over the contact`;
  if (drop < -DROP_GOOD) {
    return ['watch', `${volts}, more than its supply has: fed from elsewhere, or a slip. Read both again.`];
  }
  return drop > DROP_WORN
    ? ['bad', `${words}: worn.`]
    : drop >= DROP_GOOD
      ? ['watch', `${words}: watch it.`]
      : ['good', `${words}, if the load runs: good.`];
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
  duty: RelayDuty,
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

/** Parts of these runs that switch and do not come out: outputs of modules, soldered relays. */
export function fixedSwitches(circuit: CircuitFile, concerned: ReadonlySet<string>): CircuitPart[] {
  return circuit.parts.filter(
    (part) =>
      concerned.has(part.id) &&
      (part.kind === 'module-output' || (part.kind === 'relay' && part.fixed === true)),
  );
}

/**
 * A module that switches: its feed, its earth, what is asked of it, what comes out; in this order. `sound` has the volts
 * of every point in the condition when all is well: a request that should be absent there is no fault.
 */
export function moduleVerdicts(
  circuit: CircuitFile,
  module: PartOf<'module-output'>,
  sound: Readonly<Record<string, number>>,
  condition: string,
  readings: readonly TakenReading[],
): RoleVerdict[] {
  const nominal = circuit.nominalVolts;
  const read = (pin: string) => known(circuit, readings, module.pins[pin] ?? '', condition);
  /** Whether a point is to be high here; as the first way of switching it on would have it, where that is open. */
  const isHigh = (pin: string, otherwise: boolean) => {
    const volts = sound[module.pins[pin] ?? ''];
    if (volts !== undefined && volts >= FED * nominal) return true;
    return volts !== undefined && Math.abs(volts) < AT_EARTH * nominal ? false : otherwise;
  };
  const judge = (pin: string, high: boolean, words: readonly [good: string, bad: string]): Judged => {
    const at = read(pin);
    if (at === null) return ['untested', 'Not read yet. Meter only: no lamp on a module.'];
    const right = high ? isFed(at, nominal) : isEarthed(at, nominal);
    return [right ? 'good' : 'bad', `${spoken(at.volts)}: ${words[right ? 0 : 1]}`];
  };
  const row = (role: Role, name: string, pin: string, [standing, sentence]: Judged): RoleVerdict => ({
    role,
    name,
    pin,
    standing,
    sentence,
    test: tester(circuit, module.pins[pin] ?? '', condition),
  });
  const asked = new Map(module.rule.flatMap((line) => Object.entries(line.inputs ?? {})).reverse());
  const before = [
    row(
      'feed',
      'Feed of the module',
      'plus',
      judge('plus', true, ['fed.', 'not fed. Its fuse and feed come first.']),
    ),
    row(
      'earth',
      'Earth of the module',
      'minus',
      judge('minus', false, ['at earth.', 'not at earth. Its earth comes first.']),
    ),
    ...[...asked].map(([pin, wanted]) => {
      const high = isHigh(pin, wanted === 'high');
      const words =
        high === (wanted === 'high')
          ? ([
              'the request arrives.',
              'the request does not arrive. Look at switch and request wire.',
            ] as const)
          : ([
              'no request here, as it should be.',
              'a request that should not be there. Look at switch and request wire.',
            ] as const);
      return row('request', `Request, ${pin}`, pin, judge(pin, high, words));
    }),
  ];
  const on = module.side === 'high';
  const high = isHigh('out', on);
  const ready = before.every((one) => one.standing === 'good');
  return [
    ...before,
    row(
      'output',
      'Output',
      'out',
      judge(
        'out',
        high,
        high === on
          ? [
              'switched on. From here on it is wire, plug, load and earth.',
              ready
                ? 'fed and asked, and nothing comes out: coding, a lock-out, or the module itself. Read its own fault memory.'
                : 'nothing comes out. Feed, earth and request come first.',
            ]
          : [
              'off, as it should be.',
              ready
                ? 'on although nothing asks for it: fed from elsewhere, coding, or the module itself.'
                : 'on where it should be off. Feed, earth and request come first.',
            ],
      ),
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
