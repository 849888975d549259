/** The words that describe one part: its way, its numbers, its colour, its family, and fields by name. */

import type { Pieces } from './pieces';
import { freeLeg, pinProblem } from './pinWords';
import type { ReadPart } from './readPart';
import type { Token } from './tokens';
import {
  EVERY_KIND_WORD,
  isColour,
  KEY_POSITIONS,
  kindOfWord,
  nearestWord,
  unitOf,
  type Way,
  wordsOfKind,
} from './words';

const NUMBER = /^([-+]?\d+(?:[.,]\d+)?(?:e[-+]?\d+)?)(\p{L}.*)?$/iu;
const FLAGS: ReadonlyMap<string, string> = new Map([
  ['safety-critical', 'safetyCritical'],
  ['fixed', 'fixed'],
  ['momentary', 'momentary'],
]);
const EVERY_UNIT = 'A, W, V, ohm, m or mm²';

/** Takes the words of one mention in; gives the way through the part, or null when it is not to be had. */
export function readPhrase(
  pieces: Pieces,
  part: ReadPart,
  tokens: readonly Token[],
  line: number,
): Way | null {
  const words = wordsOfKind(part.kind);
  let way: Way | null = null;
  let bad = false;
  const report = (token: { from: number; to: number }, message: string) => {
    bad = true;
    pieces.report({ line, from: token.from, to: token.to, message });
  };
  const say = (token: { from: number; to: number }, field: string, value: unknown) => {
    const before = part.fields[field];
    if (before !== undefined && JSON.stringify(before) !== JSON.stringify(value)) {
      report(
        token,
        `${part.id} has another ${field} already: ${JSON.stringify(before)} on line ${part.line}. Say it once.`,
      );
    } else part.fields[field] = value;
  };
  for (let at = 0; at < tokens.length && !pieces.isTooMuch; at++) {
    const token = tokens[at]!;
    const next = tokens[at + 1];
    if (token.kind === 'point') continue;
    if (token.kind === 'text') {
      say(token, 'name', token.text);
      continue;
    }
    if (token.kind === 'value') {
      const value = readValue(token, report);
      if (value !== undefined) say(token, token.text, value);
      continue;
    }
    const text = token.text;
    const number = NUMBER.exec(text);
    if (number && !(words.kind === 'wire' && isColour(text)) && !text.includes('>')) {
      const unitToken = number[2] ? token : next?.kind === 'word' && unitOf(next.text) ? next : undefined;
      if (unitToken && unitToken !== token) at += 1;
      const unitWord = number[2] ?? (unitToken ? unitToken.text : '');
      readNumber(number[1]!, unitWord, { ...token, to: (unitToken ?? token).to });
      continue;
    }
    if (text.startsWith('@')) say(token, 'place', text.slice(1));
    else if (text === 'slot' && next?.kind === 'word' && next.text.includes('/')) {
      const [panel = '', slot = ''] = next.text.split('/');
      say({ from: token.from, to: next.to }, 'slot', { panel, slot });
      at += 1;
    } else if (FLAGS.has(text)) say(token, FLAGS.get(text)!, true);
    else if (part.kind === 'wire' && isColour(text.toUpperCase())) say(token, 'colour', text.toUpperCase());
    else if (part.kind === 'connector' && (text === 'cavity' || text === 'pin') && next) {
      say({ from: token.from, to: next.to }, 'cavity', next.text);
      at += 1;
    } else if (part.kind === 'connector' && text === 'of' && next) {
      say({ from: token.from, to: next.to }, 'plug', next.text);
      at += 1;
    } else if (/^[^>:]+>[^>:]+$/.test(text)) {
      const [enter = '', leave = ''] = text.split('>');
      for (const pin of [enter, leave]) {
        const wrong = pinProblem(part, pin);
        if (wrong) report(token, wrong);
      }
      if (enter === leave) report(token, `The way goes in and out at the same terminal, ${enter}.`);
      way = { enter, leave };
    } else if (part.kind === 'switch' && /^[^>:]+>[^>:]+:.+$/.test(text)) {
      const [pins = '', places = ''] = text.split(':');
      const [from = '', to = ''] = pins.split('>');
      const contacts = (part.fields.contacts as object[] | undefined) ?? [];
      contacts.push({ from, to, closedIn: places.split('|') });
      part.fields.contacts = contacts;
    } else if (part.kind === 'switch' && text.includes('|')) say(token, 'positions', text.split('|'));
    else if (part.kind === 'key-contact' && text.split('|').some((one) => isKeyPosition(one))) {
      const positions = text.split('|');
      const wrong = positions.find((one) => !isKeyPosition(one));
      if (wrong) report(token, `“${wrong}” is no key position. There are ${KEY_POSITIONS.join(', ')}.`);
      else say(token, 'closedIn', positions);
    } else {
      const chosen = Object.entries(words.choices ?? {}).find(([, values]) => values.includes(text));
      const named = words.ways.find((one) => one.word === text);
      if (chosen) say(token, chosen[0], text);
      else if (named) way = named;
      else report(token, unknownWord(part, text));
    }
  }
  if (bad) return null;
  if (way) return way;
  if (part.kind === 'splice') {
    const enter = freeLeg(part);
    pieces.pin(part, enter);
    return { enter, leave: freeLeg(part) };
  }
  if (part.kind === 'switch' && part.ways.length > 0) return part.ways[0]!;
  if (!words.mustSay) return words.ways[0]!;
  const first = tokens[0] ?? part;
  report(
    first,
    `Which way through ${words.word} ${part.id}? Write ${words.ways
      .filter((one) => one.word)
      .map((one) => `“${one.word}” (${one.enter} to ${one.leave})`)
      .join(' or ')}.`,
  );
  return null;

  function readNumber(figure: string, unitWord: string, token: Token): void {
    if (/^\d{1,3},\d{3}$/.test(figure)) {
      report(
        token,
        `“${figure}” can be read two ways. Write ${figure.replace(',', '')} or ${figure.replace(',', '.')}.`,
      );
      return;
    }
    const value = Number(figure.replace(',', '.'));
    if (unitWord === '') {
      const fitting = Object.keys(words.numbers);
      report(
        token,
        fitting.length > 0
          ? `${figure} of what? Write the unit: ${fitting.map((unit) => `${figure} ${unit}`).join(' or ')}.`
          : `“${figure}” has no meaning for a ${words.word}.`,
      );
      return;
    }
    const known = unitOf(unitWord);
    if (!known) {
      report(token, `“${unitWord}” is no unit here. Use ${EVERY_UNIT}.`);
      return;
    }
    const [unit, factor] = known;
    const field = words.numbers[unit];
    if (!field) {
      const fitting = Object.keys(words.numbers).join(' or ');
      report(
        token,
        `${unit} says nothing about a ${words.word}.${fitting ? ` Its numbers are in ${fitting}.` : ''}`,
      );
      return;
    }
    if (!(value > 0)) {
      report(token, `${figure} ${unit} cannot be: write a number above 0.`);
      return;
    }
    say(token, field, factor === 1 ? value : Number((value * factor).toPrecision(12)));
  }
}

function isKeyPosition(word: string): boolean {
  return (KEY_POSITIONS as readonly string[]).includes(word);
}

function readValue(token: Token, report: (token: Token, message: string) => void): unknown {
  if (!/^[A-Za-z][A-Za-z0-9]*$/.test(token.text)) {
    report(token, `“${token.text}=” names no field.`);
    return undefined;
  }
  if (['id', 'kind', 'pins'].includes(token.text)) {
    report(token, `“${token.text}” is not written with =; it follows from the line.`);
    return undefined;
  }
  try {
    return JSON.parse(token.value ?? '');
  } catch {
    const bare = token.value ?? '';
    if (/^[A-Za-z][\w-]*$/.test(bare)) return bare;
    report(token, `What follows “${token.text}=” cannot be read. Write a number, a word or "text".`);
    return undefined;
  }
}

function unknownWord(part: ReadPart, text: string): string {
  const words = wordsOfKind(part.kind);
  if (kindOfWord(text)) return `“${text}” begins a new part. Put a comma before it.`;
  if (unitOf(text)) return `“${text}” stands alone. Write the number before it, “10 ${text}”.`;
  const known = [
    ...Object.values(words.choices ?? {}).flat(),
    ...words.ways.flatMap((one) => (one.word ? [one.word] : [])),
    ...FLAGS.keys(),
    ...(part.kind === 'key-contact' ? KEY_POSITIONS : []),
  ];
  const near = nearestWord(text, [...known, ...EVERY_KIND_WORD]);
  if (part.kind === 'wire' && /^[A-Za-z]{2}(\/[A-Za-z]{2})?$/.test(text)) {
    return `“${text}” is no wire colour. Use two-letter codes, base before tracer: BN/WH, RD, GN/YE. Another: colour="${text}".`;
  }
  if (near) return `“${text}” is not understood of a ${words.word}. Did you mean “${near}”?`;
  return `“${text}” is not understood of a ${words.word}. ${known.length > 2 ? `It may be ${known.slice(0, 6).join(', ')}.` : 'Put a name in quotes, and a comma before the next part.'}`;
}
