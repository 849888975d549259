/** The way through what switches and does not come out: a module's output, a soldered relay. */
import type { CircuitFile, CircuitPart, PartOf } from '../../format';
import type { TakenReading } from '../evidence/readings';
import {
  isEarthed,
  isFed,
  type Judged,
  known,
  type Role,
  type RoleVerdict,
  spoken,
  tester,
} from './pinReadings';
import { AT_EARTH, FED } from './relayDuty';

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
