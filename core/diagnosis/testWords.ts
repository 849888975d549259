/** Tests by the words that people use for them, in either dialect and by any common name of the method. */
import type { CircuitFile, TestRef } from '../format';
import { SAME_WORDS, wordsOf } from '../panel';
import { testCardWords } from './card';

/** What a kind of test is also called, besides what its card says. */
const ALSO: Readonly<Record<TestRef['kind'], string>> = {
  volts: 'voltage measure meter back-probe backprobe probe reading',
  lamp: 'test light probe lit',
  led: 'tester probe lit',
  function: 'works try operate check',
  continuity: 'continuity element ohms resistance beep buzzer conducts pull pulled out removed',
  ohms: 'ohms resistance ohmmeter in place',
  'ohms-behind': 'ohms resistance short earth holes pull pulled out',
  'lamp-in-fuse': 'test light instead short holes pull',
  'lamp-current': 'test light current short wire clamp',
  substitute: 'swap exchange replace known good new spare',
  elsewhere: 'swap exchange other place',
  click: 'relay feel hear listen sound',
  sound: 'listen hear noise hum',
  look: 'element inspect see visual pull broken',
  wiggle: 'move tap shake loose knock',
  clamp: 'current amps amperes amp draw',
  'fuse-drop': 'current amps millivolts voltage drop parasitic draw',
  bridge: 'jumper jump lead bypass link',
  apply: 'jumper lead feed power probe inject direct',
  battery: 'battery posts terminals volts voltage rest charging cranking',
};

/** What a terminal of a relay is also called. */
const PIN_WORDS: Readonly<Record<string, string>> = {
  30: 'common contact supply input',
  87: 'output contact normally open',
  '87a': 'output contact normally closed rest',
  85: 'coil return trigger',
  86: 'coil feed trigger',
};

/** Terminals of relays that share a point: three pins, and a fuse that feeds one, are one spot with many names. */
function pinWords(circuit: CircuitFile, ref: TestRef): string {
  if (!('node' in ref)) return '';
  return circuit.parts
    .filter((part) => part.kind === 'relay')
    .flatMap((part) =>
      Object.entries(part.pins).flatMap(([pin, node]) =>
        node === ref.node ? [`${part.name} pin terminal ${pin} ${PIN_WORDS[pin] ?? ''}`] : [],
      ),
    )
    .join(' ');
}

const DROP = 'voltage drop both ends across loss';
const PULLED = 'pull pulled holes fuse out';

/** Every word that a test may be found by. */
export function testSearchWords(
  circuit: CircuitFile,
  ref: TestRef,
  place: string | null,
  lead: string,
): string[] {
  const { title, settings } = testCardWords(circuit, ref, place, lead);
  const where = circuit.places.find((one) => one.id === place)?.name ?? '';
  const drop = ref.kind === 'volts' && ref.against !== circuit.reference ? DROP : '';
  const pulled = ref.kind === 'volts' && ref.pulled ? PULLED : '';
  return wordsOf(
    [
      title,
      ...settings.map(({ words }) => words),
      where,
      lead,
      ALSO[ref.kind],
      drop,
      pulled,
      pinWords(circuit, ref),
    ]
      .join(' ')
      .replaceAll('-', ' '),
  );
}

/** Whether every word asked for is there, begins one that is, or is one in the other dialect. */
export function testMatches(query: string, words: readonly string[]): boolean {
  return wordsOf(query.replaceAll('-', ' ')).every((wanted) => {
    const family = SAME_WORDS.find((one) => one.includes(wanted)) ?? [wanted];
    return words.some((word) => word.startsWith(wanted) || family.includes(word));
  });
}
