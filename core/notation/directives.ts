/** Lines that are no branch: the circuit's own name, places, points, conditions, functions, notes. */

import type { Condition, KeyPositionName } from '../format';
import { NOMINAL_VOLTS } from '../format';
import type { Pieces } from './pieces';
import { type Segment, segmentsOf, type Token } from './tokens';
import { KEY_POSITIONS, nearestWord, slug } from './words';

type Directive = 'circuit' | 'place' | 'point' | 'when' | 'function' | 'note' | 'reference';
type Report = (token: { from: number; to: number }, message: string) => void;
type Reader = (pieces: Pieces, segments: readonly Segment[], report: Report) => unknown;

export function readDirective(
  pieces: Pieces,
  directive: Directive,
  text: string,
  line: number,
  start: number,
): void {
  const report: Report = (token, message) =>
    pieces.report({ line, from: token.from, to: Math.max(token.to, token.from + 1), message });
  // A colon after the head is read like a comma.
  const head = text.slice(start).replace(/^:/, ' ');
  const cut = colonAt(head);
  const even = cut < 0 ? head : `${head.slice(0, cut)},${head.slice(cut + 1)}`;
  const segments = segmentsOf(text.slice(0, start) + even, line, start, pieces.report);
  if (segments.length === 0) {
    report({ from: 0, to: text.length }, `“${directive}” alone says nothing.`);
    return;
  }
  READERS[directive](pieces, segments, report);
}

/** The colon that ends a head, outside quotes and outside names such as X1:cooler. */
function colonAt(text: string): number {
  let inText = false;
  for (let at = 0; at < text.length; at++) {
    if (text[at] === '\\' && inText) at += 1;
    else if (text[at] === '"') inText = !inText;
    else if (text[at] === ':' && !inText && /\s|$/.test(text[at + 1] ?? ' ')) return at;
  }
  return -1;
}

function nameOf(segment: Segment): {
  id: Token | undefined;
  name: string | undefined;
  rest: readonly Token[];
} {
  const [first, second, ...rest] = segment.tokens;
  const id = first?.kind === 'word' ? first : undefined;
  if (!id)
    return {
      id: undefined,
      name: first?.kind === 'text' ? first.text : undefined,
      rest: segment.tokens.slice(1),
    };
  if (second?.kind === 'text') return { id, name: second.text, rest };
  return { id, name: undefined, rest: segment.tokens.slice(1) };
}

/** A number and its unit, together or apart; null when there is none. */
function amount(tokens: readonly Token[], unit: string): number | null {
  for (const [index, token] of tokens.entries()) {
    const found = /^(\d+(?:[.,]\d+)?)(\S*)$/.exec(token.text);
    if (!found) continue;
    if ((found[2] || tokens[index + 1]?.text) === unit) return Number(found[1]!.replace(',', '.'));
  }
  return null;
}

const READERS: Readonly<Record<Directive, Reader>> = {
  circuit: (pieces, segments, report) => {
    const tokens = segments.flatMap((segment) => segment.tokens);
    for (const [index, token] of tokens.entries()) {
      if (token.kind === 'text') pieces.header.name = token.text;
      const volts = /^(\d+)V?$/i.exec(token.text);
      if (volts && token.kind === 'word') {
        const value = Number(volts[1]);
        if ((NOMINAL_VOLTS as readonly number[]).includes(value)) pieces.header.volts = value;
        else report(token, `${value} V is no nominal voltage. Use ${NOMINAL_VOLTS.join(', ')} V.`);
      } else if (token.kind === 'word' && index === 0) pieces.header.id = token.text;
    }
    if (!pieces.header.id && pieces.header.name) pieces.header.id = slug(pieces.header.name);
  },
  place: (pieces, segments, report) => {
    const { id, name, rest } = nameOf(segments[0]!);
    if (!id) return report(segments[0]!, 'Write place ID "name", 2 min.');
    const tokens = [...rest, ...segments.slice(1).flatMap((segment) => segment.tokens)];
    const caution = tokens.findIndex((token) => token.text === 'caution');
    pieces.saysAccess = true;
    pieces.places.push({
      id: id.text,
      name: name ?? id.text.replace(/-/g, ' '),
      minutesToOpen: amount(tokens, 'min') ?? 1,
      ...(caution >= 0 && tokens[caution + 1] ? { caution: tokens[caution + 1]!.text } : {}),
    });
    return null;
  },
  point: (pieces, segments, report) => {
    const { id, name, rest } = nameOf(segments[0]!);
    if (!id) return report(segments[0]!, 'Write point ID "name", at PLACE "where the lead goes".');
    pieces.saysAccess = true;
    const probe = rest.find((token) => ['allowed', 'no-load', 'do-not-probe'].includes(token.text));
    const access = segments.slice(1).flatMap((segment) => {
      const [at, place, lead, ...more] = segment.tokens;
      if (at?.text !== 'at' || !place || lead?.kind !== 'text') {
        report(segment, 'Write at PLACE "where the lead goes", 2 min.');
        return [];
      }
      const minutes = amount(more, 'min');
      return [{ place: place.text, lead: lead.text, ...(minutes === null ? {} : { minutes }) }];
    });
    pieces.pointWords.set(id.text, {
      ...(name === undefined ? {} : { name }),
      ...(access.length > 0 ? { access } : {}),
      ...(probe ? { probe: probe.text as 'allowed' } : {}),
    });
    return null;
  },
  when: (pieces, segments, report) => {
    const { id, name } = nameOf(segments[0]!);
    const condition: { -readonly [K in keyof Condition]: Condition[K] } = {
      id: id?.text ?? slug(name ?? 'when'),
      name: name ?? id?.text.replace(/-/g, ' ') ?? 'when',
      key: 'off',
    };
    for (const segment of segments.slice(1)) readState(condition, segment, report);
    pieces.conditions.push(condition);
  },
  function: (pieces, segments, report) => {
    const { id, name } = nameOf(segments[0]!);
    const [load, ...rest] = segments.slice(1).flatMap((segment) => segment.tokens);
    if (!load) return report(segments[0]!, 'Write function ID "name": LOAD.');
    const minutes = amount(rest, 'min');
    pieces.functions.push({
      id: id?.text ?? slug(name ?? load.text),
      name: name ?? id?.text.replace(/-/g, ' ') ?? load.text,
      load: load.text,
      ...(minutes === null ? {} : { minutes }),
    });
    return null;
  },
  note: (pieces, segments) => {
    const [first] = segments.flatMap((segment) => segment.tokens);
    pieces.notes.push(
      first?.kind === 'text'
        ? first.text
        : segments.map((segment) => segment.tokens.map((token) => token.text).join(' ')).join(', '),
    );
  },
  reference: (pieces, segments) => {
    pieces.header.reference = segments[0]!.tokens[0]!.text;
  },
};

/** A record with one more entry, in place: a line may name thousands. */
function put(record: Record<string, string> | undefined, key: string, value: string): Record<string, string> {
  const kept = record ?? {};
  Object.defineProperty(kept, key, { value, enumerable: true, configurable: true, writable: true });
  return kept;
}

/** One state of a condition: "key run", "S7 on", "engine running", "X1 takes cooler", "after all-off", "5 s in". */
function readState(
  condition: { -readonly [K in keyof Condition]: Condition[K] },
  segment: Segment,
  report: Report,
): void {
  const [first, second, third] = segment.tokens.map((token) => token.text);
  if (first === undefined) return;
  if (first === 'key') {
    if ((KEY_POSITIONS as readonly string[]).includes(second ?? '')) {
      condition.key = second as KeyPositionName;
    } else {
      const near = nearestWord(second ?? '', KEY_POSITIONS);
      report(
        segment,
        `“${second ?? ''}” is no key position. ${near ? `Did you mean “${near}”?` : `There are ${KEY_POSITIONS.join(', ')}.`}`,
      );
    }
  } else if (first === 'engine') condition.engineRunning = second !== 'stopped';
  else if (first === 'phase' && (second === 'on' || second === 'off')) condition.phase = second;
  else if (first === 'after' && second) condition.after = second;
  else if (/^\d/.test(first)) {
    const seconds = amount(segment.tokens, 's');
    if (seconds === null) report(segment, 'Write seconds as “5 s in”.');
    else condition.secondsIn = seconds;
  } else if (second === 'takes' && third) condition.pluggedIn = put(condition.pluggedIn, first, third);
  else if (second !== undefined && third === undefined) {
    condition.switches = put(condition.switches, first, second);
  } else report(segment, 'Write a state as “key run”, “S7 on”, “engine running” or “X1 takes cooler”.');
}
