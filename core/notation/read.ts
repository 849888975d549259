/**
 * Reads the notation: one line a branch, from the battery to earth, part after part. Gives the circuit, or every
 * mistake with its place and its remedy. What the text does not say (names of wires, places, leads of a probe) is
 * kept from the circuit it was made from, when one is given.
 */

import { checkCircuit, namesOfParts, renamedAfterParts } from '../circuit';
import type { CircuitFile, Problem } from '../format';
import { PART_LIMIT } from '../format';
import { reachable, usualConditions, usualFunctions } from './defaults';
import { readDirective } from './directives';
import { readPhrase } from './phrase';
import { Pieces } from './pieces';
import type { ReadPart } from './readPart';
import { type Segment, segmentsOf, type TextProblem, type Token } from './tokens';
import { EVERY_KIND_WORD, kindOfWord, nearestWord, wordsOfKind } from './words';

export interface ReadText {
  /** Null while there is any mistake. */
  readonly circuit: CircuitFile | null;
  readonly problems: readonly TextProblem[];
}

const DIRECTIVES = ['circuit', 'place', 'point', 'when', 'function', 'note', 'reference'] as const;

/** Longest text that is read, characters. */
export const TEXT_LIMIT = 400_000;

export function readNotation(text: string, base: CircuitFile | null = null): ReadText {
  const pieces = new Pieces(base);
  if (text.length > TEXT_LIMIT) {
    pieces.report({
      line: 1,
      from: 0,
      to: 1,
      message: `The text is too long: at most ${TEXT_LIMIT} letters.`,
    });
    return { circuit: null, problems: pieces.problems };
  }
  for (const [index, line] of text.split(/\r?\n/).entries()) {
    readLine(pieces, line, index + 1);
    if (pieces.isTooMuch) return { circuit: null, problems: tooMuch(pieces, index + 1) };
  }
  const circuit = pieces.problems.length === 0 ? assemble(pieces, text) : null;
  return {
    circuit: pieces.problems.length === 0 ? circuit : null,
    problems: pieces.problems,
  };
}

/** Where reading stopped, behind what was found up to there. */
function tooMuch(pieces: Pieces, line: number): TextProblem[] {
  const why =
    pieces.parts.size > PART_LIMIT
      ? `A circuit has at most ${PART_LIMIT} parts. Divide it: circuits of one vehicle are joined by the parts they share.`
      : 'Reading stopped here: there are too many mistakes or names above. Mend those first.';
  return [...pieces.problems, { line, from: 0, to: 1, message: why }];
}

function readLine(pieces: Pieces, text: string, line: number): void {
  const start = text.search(/\S/);
  if (start < 0) return;
  if (text[start] === '#') {
    pieces.notes.push(text.slice(start + 1).trim());
    return;
  }
  const first = /^\S+/.exec(text.slice(start))?.[0].replace(/[,:]$/, '') ?? '';
  if ((DIRECTIVES as readonly string[]).includes(first)) {
    readDirective(pieces, first as (typeof DIRECTIVES)[number], text, line, start + first.length);
    return;
  }
  const segments = segmentsOf(text, line, start, pieces.report);
  if (segments.length > 0) readRun(pieces, segments, line);
}

/** A branch: where it starts, the parts in their order, where it ends. */
function readRun(pieces: Pieces, segments: readonly Segment[], line: number): void {
  const at = pieces.walk(line);
  segments.forEach((segment, index) => {
    const [head, ...rest] = segment.tokens;
    if (!head || pieces.isTooMuch) return;
    const last = index === segments.length - 1;
    const word = head.kind === 'word' ? head.text.toLowerCase() : '';
    if (word === 'from' || word === 'to' || word === 'at') {
      readPoint(pieces, at, word, segment, rest, { line, first: index === 0, last });
      return;
    }
    if (word === 'open' && rest.length === 0 && last) {
      at.open();
      return;
    }
    if (head.kind === 'word' && (word === 'battery' || word === 'plus') && rest.length === 0 && index === 0) {
      at.fromBattery(head);
      return;
    }
    const part = partOf(pieces, segment, line);
    if (!part) return;
    if (at.ended && !at.reported) {
      at.reported = true;
      pieces.report({
        line,
        from: segment.from,
        to: segment.to,
        message: `The branch has ended at earth already. Start a new line for ${part.read.id}, with “from …”.`,
      });
    }
    const way = readPhrase(pieces, part.read, part.tokens, line);
    if (way) at.through(part.read, way, segment);
    const named = segment.tokens.find((token) => token.kind === 'point');
    if (named && way) at.name(named.text, named, false);
  });
  at.finish(segments.at(-1)!);
}

function readPoint(
  pieces: Pieces,
  at: ReturnType<Pieces['walk']>,
  word: 'from' | 'to' | 'at',
  segment: Segment,
  rest: readonly Token[],
  where: { line: number; first: boolean; last: boolean },
): void {
  const { line } = where;
  const report = (message: string) => pieces.report({ line, from: segment.from, to: segment.to, message });
  if (rest.length === 0) report(`“${word}” what? Name a point or a part, “${word} F31”.`);
  else if (word === 'from' && !where.first) {
    report('“from” stands at the start of a line. Start a new line here.');
  } else if (word === 'to' && !where.last) {
    report('“to” ends a line. Put what follows on a line of its own.');
  } else at.name(rest.map((token) => token.text).join('-'), segment, word !== 'at', word === 'from');
}

/** The part that a segment is about, new or named before, and the words that describe it. */
function partOf(
  pieces: Pieces,
  segment: Segment,
  line: number,
): { read: ReadPart; tokens: readonly Token[] } | null {
  const [head, ...rest] = segment.tokens;
  const report = (token: { from: number; to: number }, message: string) => {
    pieces.report({ line, from: token.from, to: token.to, message });
    return null;
  };
  if (head?.kind !== 'word')
    return report(head ?? segment, 'Begin with what it is: fuse, wire, relay, lamp …');
  const entry = kindOfWord(head.text);
  if (!entry) {
    const known = pieces.parts.get(head.text);
    if (known) return { read: known, tokens: rest };
    const near = nearestWord(head.text, EVERY_KIND_WORD);
    const nearPart = nearestWord(head.text, pieces.parts.keys());
    return report(
      head,
      near
        ? `“${head.text}” is no part. Did you mean “${near}”?`
        : nearPart
          ? `“${head.text}” is not in this circuit. Did you mean “${nearPart}”?`
          : `“${head.text}” is no part. Begin with what it is: fuse, wire, plug, relay, switch, lamp, motor, earth …`,
    );
  }
  const [next] = rest;
  const explicit = next?.kind === 'word' && next.text.startsWith('#');
  const id = next?.kind === 'word' ? (explicit ? next.text.slice(1) : next.text) : '';
  const isId = explicit || (next?.kind === 'word' && looksLikeId(id));
  if (isId && !/^[A-Za-z0-9][A-Za-z0-9._:-]*$/.test(id)) {
    return report(next!, `“${id}” cannot name a part: letters, figures, point and dash only.`);
  }
  const known = isId ? pieces.parts.get(id) : undefined;
  if (known && known.kind !== entry.kind) {
    return report(
      next!,
      `${id} is a ${wordsOfKind(known.kind).word} already (line ${known.line}). Give this ${entry.word} another name.`,
    );
  }
  if (known) return { read: known, tokens: rest.slice(1) };
  const read = pieces.add(entry.kind, isId ? id : pieces.freeId(entry.prefix), line, segment);
  return { read, tokens: isId ? rest.slice(1) : rest };
}

/** F31, MF1, W34, S7, G4, cab-relay: what nothing else in a phrase looks like. */
export function looksLikeId(word: string): boolean {
  return /^[A-Za-z]{1,5}\d+[A-Za-z0-9._-]*$/.test(word) && !/^mm\d/i.test(word);
}

function assemble(pieces: Pieces, text: string): CircuitFile | null {
  const { base } = pieces;
  const nominalVolts = pieces.header.volts ?? base?.nominalVolts;
  const parts = pieces.finishedParts();
  if (pieces.problems.length > 0) return null;
  const nodes = pieces.finishedNodes();
  const draft = {
    format: 'every-trace/circuit' as const,
    version: 1 as const,
    id: pieces.header.id ?? base?.id ?? 'circuit',
    name: pieces.header.name ?? base?.name ?? 'Circuit',
    // Without a voltage nothing comes of it; the rest is looked through all the same.
    nominalVolts: nominalVolts ?? 12,
    reference: pieces.referenceNode(),
    places: pieces.places.length > 0 ? pieces.places : [...(base?.places ?? [])],
    nodes,
    conditions: pieces.conditions,
    functions: pieces.functions,
    ...(pieces.notes.length > 0 ? { notes: pieces.notes.join('\n') } : {}),
    parts,
  } as CircuitFile;
  const made = pieces.saysAccess ? draft : reachable(withUsual(draft, base), base);
  const circuit = base ? renamedAfterParts(made, namesOfParts(base)) : made;
  const checked = checkCircuit(circuit);
  const lines = text.split(/\r?\n/);
  for (const problem of checked.ok ? [] : checked.problems) pieces.report(placed(pieces, problem, lines));
  if (nominalVolts === undefined) {
    const to = Math.max(1, text.search(/\r?\n|$/));
    const message = 'Which nominal voltage? Begin with a line like: circuit step-lamp "Step lamp" 12 V';
    pieces.report({ line: 1, from: 0, to, message });
  }
  return checked.ok ? checked.value : null;
}

/** Functions and conditions as they usually are: all of them for a new circuit, those of new parts for an old one. */
function withUsual(circuit: CircuitFile, base: CircuitFile | null): CircuitFile {
  const known = new Set((base?.parts ?? []).map((part) => part.id));
  const fresh = circuit.parts.filter((part) => !known.has(part.id));
  const served = new Set(circuit.functions.map((one) => one.load));
  const said = base !== null || circuit.functions.length === 0;
  const conditions = base === null ? usualConditions(circuit.parts) : usualConditions(fresh);
  const moves = new Set(circuit.conditions.flatMap((one) => Object.keys(one.switches ?? {})));
  const added =
    circuit.conditions.length === 0
      ? conditions
      : base === null
        ? []
        : conditions.filter((one) => Object.keys(one.switches ?? {}).some((id) => !moves.has(id)));
  return {
    ...circuit,
    functions: [
      ...circuit.functions,
      ...(said ? usualFunctions(fresh).filter((one) => !served.has(one.load)) : []),
    ],
    conditions: [...circuit.conditions, ...added],
  };
}

/** A problem of the finished circuit, at the line of the part or condition it is about. */
function placed(pieces: Pieces, problem: Problem, lines: readonly string[]): TextProblem {
  const [, list, id] = problem.path.split('/');
  const part = list === 'parts' && id ? pieces.parts.get(id) : undefined;
  if (part) return { line: part.line, from: part.from, to: part.to, message: problem.message };
  const about = id ? lines.findIndex((line) => line.includes(id)) : -1;
  const line = Math.max(0, about);
  const message =
    problem.code === 'no-source'
      ? 'There is no battery. Start the first line with “battery, …”.'
      : problem.message;
  return { line: line + 1, from: 0, to: Math.max(1, (lines[line] ?? '').length), message };
}
