/** A circuit grows by a line of its text: another load behind what feeds one already. */
import { loadSide } from '../circuit';
import type { CircuitFile, CircuitPart } from '../format';
import type { LoadWord } from './patterns';
import { quoted } from './tokens';
import { slug, wordsOfKind } from './words';

/** The pin that another load can hang on: behind a fuse, a relay's closing contact or a contact of the key. */
export function feedPin(part: CircuitPart): string | null {
  if (part.kind === 'key-contact') return 'out';
  if (loadSide(part) === null) return null;
  return part.kind === 'relay' ? '87' : 'out';
}

/**
 * The text with one more branch behind a part, down to earth (or to the minus post where nothing is earthed), and a
 * function of its load. `taken` are ids that others of the vehicle give. Null where nothing can hang on the part.
 */
export function withLoadBehind(
  text: string,
  circuit: CircuitFile,
  { part, kind, name, taken }: { part: string; kind: LoadWord; name: string; taken: ReadonlySet<string> },
): string | null {
  const feed = circuit.parts.find(({ id }) => id === part);
  const pin = feed ? feedPin(feed) : null;
  if (!feed || pin === null) return null;
  const used = new Set([...taken, ...circuit.parts.map(({ id }) => id)]);
  const free = (prefix: string) => {
    let n = 1;
    while (used.has(`${prefix}${n}`)) n += 1;
    used.add(`${prefix}${n}`);
    return `${prefix}${n}`;
  };
  const [there, load, back] = [free('W'), free(wordsOfKind(kind).prefix), free('W')];
  const battery = circuit.parts.find((one) => one.kind === 'battery');
  const earthed = circuit.parts.some((one) => one.kind === 'ground') || !battery;
  const functions = new Set(circuit.functions.map(({ id }) => id));
  const wanted = slug(name, 40);
  let id = wanted;
  for (let n = 2; functions.has(id); n++) id = `${wanted}-${n}`;
  const lines = [
    `from ${feed.id}.${pin}, wire ${there}, ${wordsOfKind(kind).word} ${load} ${quoted(name)}, wire ${back}, ${earthed ? `earth ${free('G')}` : `to ${battery.id}.minus`}`,
    // Where functions are said, a load that is not said has none.
    ...(/^\s*function\b/m.test(text) ? [`function ${id} ${quoted(name)}: ${load}`] : []),
  ];
  return `${text.replace(/\s*$/, '')}\n${lines.join('\n')}\n`;
}
