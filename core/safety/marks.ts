/**
 * What serves a safety function, and which points carry no load: by marks on parts and functions, or by a printed name
 * that suggests it, until somebody has answered.
 */
import { fedBehind, partsBehind } from '../circuit';
import { type ByKind, byKind, type CircuitFile, type CircuitPart, type Panel } from '../format';

/** Systems whose circuits are left to the maker's procedure. */
export type SafetySystem = 'restraint' | 'brakes' | 'steering' | 'charging' | 'engine control' | 'fuel';

/** A system as it stands in a question. */
export const SYSTEM_WORDS: Readonly<Record<SafetySystem, string>> = {
  restraint: 'the restraints',
  brakes: 'the brakes',
  steering: 'the steering',
  charging: 'the charging',
  'engine control': 'the engine’s control',
  fuel: 'the fuel supply',
};

/** Printed names that suggest a system. Abbreviations count as they are printed, in capitals. */
const SUGGESTS: readonly (readonly [SafetySystem, RegExp])[] = [
  [
    'restraint',
    /\b(SRS|RESTR|REST[ .]?C(TRL|TL|ONT)|OCC[ .]?SENS?)\b|\b(air ?bag|restraint|pretens\w*|occupant sensor)\b/,
  ],
  ['brakes', /\b(ABS|ESC|ESP|EPB)\b|\bbrake (booster|servo|module|control|pump|pressure)\b|\bbrakes\b/],
  ['steering', /\b(EPS|STEER)\b|\bsteering\b/],
  ['charging', /\b(ALT|GEN|CHG)\b|\b(alternator|generator)\b/],
  [
    'engine control',
    /\b(ECM|ECU|PCM|TCM|ENG[ .]?CONT|INJ|IGN[ .]?COIL)\b|\b(engine control|injectors?|ignition coils?)\b/,
  ],
  ['fuel', /\bFUEL[ .]?(PMP|PUMP)\b|\bfuel pump\b/],
];
const PLAIN_WORDS =
  /air ?bag|restraint|pretens|occupant|brake|steering|alternator|generator|engine control|inject|ignition coil|fuel pump/i;

/** The system that a printed name suggests; null where it suggests none. */
export function suggestedSystem(printed: string): SafetySystem | null {
  const lower = printed.toLowerCase();
  const found = SUGGESTS.find(
    ([, pattern]) => pattern.test(printed) || (PLAIN_WORDS.test(printed) && pattern.test(lower)),
  );
  return found?.[0] ?? null;
}

type Marked = { readonly name: string; readonly safetyCritical?: boolean | undefined };

/** Whether a part or function serves a safety function; a name that suggests it counts until somebody has answered. */
export function isSafety({ name, safetyCritical }: Marked): boolean {
  return safetyCritical ?? suggestedSystem(name) !== null;
}

/** What is to be asked once: a name that suggests a safety function, and nobody has said whether it is one. */
export interface SafetyQuestion {
  readonly part: string;
  readonly name: string;
  readonly system: SafetySystem;
}

/** The load that a function is seen by. */
const loadOf = ({ load }: { readonly load: string }) => load.split(':')[0]!;

/** Questions about parts, by their own names and by those of the functions that they serve as loads. */
export function safetyQuestions({
  parts,
  functions,
}: Pick<CircuitFile, 'parts' | 'functions'>): SafetyQuestion[] {
  return parts.flatMap((part): SafetyQuestion[] => {
    if (part.safetyCritical !== undefined) return [];
    const own = functions.filter((one) => loadOf(one) === part.id && one.safetyCritical === undefined);
    const named = [part, ...own].find(({ name }) => suggestedSystem(name) !== null);
    return named ? [{ part: part.id, name: named.name, system: suggestedSystem(named.name)! }] : [];
  });
}

/** A circuit with the marks of the slots that its parts sit in; a printed name that suggests one counts till answered. */
export function withSlotMarks(circuit: CircuitFile, panels: readonly Panel[]): CircuitFile {
  const parts = circuit.parts.map((part) => {
    if (!part.slot || part.safetyCritical !== undefined) return part;
    const { panel, slot: id } = part.slot;
    const slot = panels.find((one) => one.id === panel)?.slots.find((one) => one.id === id);
    return slot && isSafetySlot(slot) ? { ...part, safetyCritical: true } : part;
  });
  return parts.some((part, index) => part !== circuit.parts[index]) ? { ...circuit, parts } : circuit;
}

type Slot = Panel['slots'][number];

/** The system that a slot's printed name or meaning suggests; null where it suggests none. */
export function slotSystem({ label, meaning }: Pick<Slot, 'label' | 'meaning'>): SafetySystem | null {
  return suggestedSystem(`${label} ${meaning ?? ''}`);
}

/** Whether what a slot feeds serves a safety function; what its name suggests counts until somebody has answered. */
export function isSafetySlot(slot: Pick<Slot, 'label' | 'meaning' | 'safetyCritical'>): boolean {
  return slot.safetyCritical ?? slotSystem(slot) !== null;
}

/** What is said at such a slot. */
export const SAFETY_SLOT =
  'It serves a safety function: no lamp, no lead, no exchange, no tap, no substitute fuse. A meter only, by the maker’s procedure; a look is no electrical proof.';

/** What carries current on without switching, fusing or using it. */
const CONDUCTORS: readonly CircuitPart['kind'][] = ['wire', 'connector'];
const SOURCES: readonly CircuitPart['kind'][] = ['battery', 'charging-source', 'ground'];

/** How a point may be touched: not at all, by a meter alone, by a meter where the maker's procedure is at hand. */
type PointMark = 'do-not-probe' | 'no-load' | 'safety';

export interface SafetyMarks {
  /** Parts that serve a safety function. */
  readonly parts: ReadonlySet<string>;
  readonly points: ReadonlyMap<string, PointMark>;
}

const known = new WeakMap<CircuitFile, SafetyMarks>();

/** Parts and points with a mark, found once for a circuit. */
export function safetyMarks(circuit: CircuitFile): SafetyMarks {
  const before = known.get(circuit);
  if (before) return before;
  const answered = new Set(
    circuit.parts.flatMap(({ id, safetyCritical }) => (safetyCritical === undefined ? [] : [id])),
  );
  // What was said of the load itself counts before the name of what it does.
  const loads = new Set(
    circuit.functions
      .filter((one) => one.safetyCritical === true || (isSafety(one) && !answered.has(loadOf(one))))
      .map(loadOf),
  );
  const parts = new Set(
    circuit.parts.filter((part) => isSafety(part) || loads.has(part.id)).map(({ id }) => id),
  );
  const points = new Map<string, PointMark>();
  const shared = new Set([
    circuit.reference,
    ...circuit.parts
      .filter(({ kind }) => SOURCES.includes(kind))
      .flatMap((part) => Object.values(part.pins) as string[]),
  ]);
  const mark = (from: readonly (string | undefined)[], as: PointMark) => {
    for (const point of along(
      circuit,
      from.filter((one) => one !== undefined && !shared.has(one)) as string[],
    )) {
      if (!shared.has(point) && !points.has(point)) points.set(point, as);
    }
  };
  for (const { id, probe } of circuit.nodes)
    if (probe === 'do-not-probe' || probe === 'no-load') points.set(id, probe);
  for (const part of circuit.parts) if (parts.has(part.id)) mark(byKind(OWN_POINTS, part), 'safety');
  for (const id of serving(circuit, parts)) mark([...fedBehind(circuit, id)], 'safety');
  for (const part of circuit.parts) {
    if (part.kind !== 'module-output') continue;
    const { plus: _plus, minus: _minus, ...lines } = part.pins;
    mark(Object.values(lines) as string[], 'no-load');
  }
  for (const { id, probe } of circuit.nodes) if (probe === 'allowed') points.delete(id);
  const marks = { parts, points };
  known.set(circuit, marks);
  return marks;
}

/**
 * Fuses and relays that serve safety functions and nothing else: every load behind them is one, and so is what every
 * coil behind them switches.
 */
function serving(circuit: CircuitFile, parts: ReadonlySet<string>): string[] {
  const loads = new Set(circuit.functions.map(loadOf));
  const behind = (id: string) =>
    partsBehind(circuit, id).filter((part) => loads.has(part.id) || part.kind === 'relay');
  const switches = circuit.parts.filter(({ kind }) => kind === 'relay').map(({ id }) => id);
  const safe = new Set(parts);
  for (const relay of switches) {
    const own = behind(relay).filter(({ kind }) => kind !== 'relay');
    if (own.length > 0 && own.every(({ id }) => safe.has(id))) safe.add(relay);
  }
  const fuses = circuit.parts.filter(({ kind }) => kind === 'fuse').map(({ id }) => id);
  return [...fuses, ...switches.filter((id) => safe.has(id))].filter((id) => {
    const served = behind(id).filter((one) => one.id !== id);
    return served.length > 0 && served.every((one) => safe.has(one.id));
  });
}

const loadSide = ({ pins }: { readonly pins: { readonly out: string } }) => [pins.out];
const everyPin = ({ pins }: CircuitPart) => Object.values(pins) as string[];

/** Points that belong to a part alone: of a fuse or contact its load side, of what uses current both its ends. */
const OWN_POINTS: ByKind<readonly (string | undefined)[]> = {
  battery: () => [],
  'charging-source': () => [],
  fuse: loadSide,
  'fusible-link': loadSide,
  breaker: loadSide,
  polyfuse: loadSide,
  wire: everyPin,
  connector: everyPin,
  splice: everyPin,
  ground: () => [],
  switch: everyPin,
  'key-contact': loadSide,
  relay: ({ pins }) => [pins['87'], pins['87a'], pins['87b']],
  'latching-relay': everyPin,
  solenoid: everyPin,
  flasher: everyPin,
  'cut-off': everyPin,
  'module-output': everyPin,
  lamp: everyPin,
  led: everyPin,
  motor: everyPin,
  pump: everyPin,
  horn: everyPin,
  heater: everyPin,
  module: everyPin,
  resistor: everyPin,
  socket: everyPin,
  diode: everyPin,
};

/** Points reached by wires and plugs alone. */
function along({ parts }: CircuitFile, from: readonly string[]): Set<string> {
  const reached = new Set(from);
  for (const point of reached) {
    for (const part of parts) {
      const pins = Object.values(part.pins) as string[];
      if (CONDUCTORS.includes(part.kind) && pins.includes(point)) for (const next of pins) reached.add(next);
    }
  }
  return reached;
}
