/** A part in the words of the notation: its name, what is said of it, what is left out. */
import type { CircuitPart, PartKind, PartOf } from '../format';
import { looksLikeId } from './read';
import { SPOKEN } from './spoken';
import { quoted } from './tokens';
import { isColour, kindOfWord, LOADS, type Unit, type Way, wordsOfKind } from './words';

const UNIT_ORDER: readonly Unit[] = ['A', 'W', 'V', 'mm²', 'm', 'ohm'];

export function phraseOf(part: CircuitPart, way: Way, fresh: boolean, everything: boolean): string {
  const words = wordsOfKind(part.kind);
  const fields = part as unknown as Readonly<Record<string, unknown>>;
  const bareId = looksLikeId(part.id) && !kindOfWord(part.id) && !isColour(part.id.toUpperCase());
  const out = [words.word, bareId ? part.id : `#${part.id}`];
  const usualName = `${words.word[0]!.toUpperCase()}${words.word.slice(1)} ${part.id}`;
  const done = new Set<string>(['id', 'kind', 'pins', 'name']);
  if (fresh) {
    const speaks =
      everything || LOADS.includes(part.kind) || part.kind === 'switch' || part.kind === 'socket';
    if (speaks && part.name !== usualName) out.push(quoted(part.name));
    if (typeof fields.colour === 'string') {
      out.push(isColour(fields.colour) ? fields.colour : `colour=${quoted(fields.colour)}`);
      done.add('colour');
    }
    for (const unit of UNIT_ORDER) {
      const field = words.numbers[unit];
      const value = field === undefined ? undefined : fields[field];
      if (typeof value !== 'number' || field === undefined) continue;
      out.push(`${plainNumber(value)} ${unit}`);
      done.add(field);
    }
    for (const [field, values] of Object.entries(words.choices ?? {})) {
      if (typeof fields[field] !== 'string' || !values.includes(fields[field])) continue;
      out.push(fields[field]);
      done.add(field);
    }
    out.push(...special(part, done));
  }
  const wayWord = words.ways.find((one) => one.enter === way.enter && one.leave === way.leave);
  const usual = wayWord !== undefined && wayWord === words.ways[0] && !words.mustSay;
  if (wayWord?.word) out.push(wayWord.word);
  else if (!usual) out.push(`${way.enter}>${way.leave}`);
  if (fresh) out.push(...quiet(fields, done, everything));
  return out.join(' ');
}

function plainNumber(value: number): string {
  return String(value);
}

/** What only one kind has words for; `done` takes the fields that are said by them. */
const SPECIAL: { readonly [K in PartKind]?: (part: PartOf<K>, done: Set<string>) => string[] } = {
  connector: (part, done) => {
    done.add('cavity').add('plug');
    return [
      ...(part.cavity === undefined
        ? []
        : /^[^\s,"=[\]]+$/.test(part.cavity)
          ? [`cavity ${part.cavity}`]
          : [`cavity=${quoted(part.cavity)}`]),
      ...(part.plug === undefined ? [] : [`of ${part.plug}`]),
    ];
  },
  'key-contact': (part, done) => {
    done.add('closedIn');
    return [part.closedIn.join('|')];
  },
  switch: (part, done) => {
    for (const field of ['positions', 'rest', 'contacts', 'momentary']) done.add(field);
    const [only] = part.contacts;
    const on = part.positions.filter((one) => one !== part.rest);
    const plain =
      part.contacts.length === 1 &&
      Object.keys(part.pins).length === 2 &&
      only?.from === 'in' &&
      only.to === 'out' &&
      JSON.stringify(only.closedIn) === JSON.stringify(on);
    return [
      ...(part.positions.join('|') === 'off|on' ? [] : [part.positions.join('|')]),
      ...(part.rest === part.positions[0] ? [] : [`rest=${quoted(part.rest)}`]),
      ...(plain ? [] : part.contacts.map((one) => `${one.from}>${one.to}:${one.closedIn.join('|')}`)),
      ...(part.momentary === undefined ? [] : part.momentary ? ['momentary'] : ['momentary=false']),
    ];
  },
  socket: (part, done) => {
    done.add('appliances');
    return part.appliances.length === 0 ? [] : [`appliances=${JSON.stringify(part.appliances)}`];
  },
};

function special(part: CircuitPart, done: Set<string>): string[] {
  const own = SPECIAL[part.kind] as ((part: CircuitPart, done: Set<string>) => string[]) | undefined;
  return own?.(part, done) ?? [];
}

/** Places, slots, flags, and every field that has no word of its own. */
function quiet(
  fields: Readonly<Record<string, unknown>>,
  done: ReadonlySet<string>,
  everything: boolean,
): string[] {
  const out: string[] = [];
  for (const [field, value] of Object.entries(fields)) {
    if (done.has(field) || value === undefined) continue;
    if (!everything && !SPOKEN.includes(field)) continue;
    if (field === 'place' && /^[A-Za-z0-9][A-Za-z0-9._:-]*$/.test(String(value)))
      out.push(`@${String(value)}`);
    else if (field === 'slot') {
      const { panel, slot } = value as { panel: string; slot: string };
      out.push(`slot ${panel}/${slot}`);
    } else if (field === 'safetyCritical' && value === true) out.push('safety-critical');
    else if (field === 'fixed' && value === true) out.push('fixed');
    else out.push(`${field}=${JSON.stringify(value)}`);
  }
  return out;
}
