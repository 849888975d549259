/** A relay by the roles of its pins: feed, output, coil feed, coil return, each with a verdict of its own. */

import type { CircuitFile, PartOf } from '../../format';
import { CONTACT_GOOD_VOLTS, contactLoss } from '../../limits';
import type { TakenReading } from '../evidence/readings';
import {
  hasRail,
  isEarthed,
  isFed,
  type Judged,
  type Known,
  known,
  type Role,
  type RoleVerdict,
  spoken,
  tester,
  UNREAD,
} from './pinReadings';
import { AT_EARTH, type ContactDuty, FED, type RelayDuty } from './relayDuty';

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

function firstOfEach<T>(all: readonly T[], key: (one: T) => string): T[] {
  return all.filter((one, index) => all.findIndex((other) => key(other) === key(one)) === index);
}

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
  if (drop < -CONTACT_GOOD_VOLTS) {
    return ['watch', `${volts}, more than its supply has: fed from elsewhere, or a slip. Read both again.`];
  }
  const stands = contactLoss(drop);
  if (stands === 'worn') return ['bad', `${words}: worn.`];
  return stands === 'watch'
    ? ['watch', `${words}: watch it.`]
    : ['good', `${words}, if the load runs: good.`];
}
