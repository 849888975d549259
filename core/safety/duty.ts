/** Loads that move, and loads that may be on for seconds only. */
import type { CircuitFile, CircuitPart } from '../format';

/** What counts where the maker's figure is not known, seconds. */
const UNKNOWN_SECONDS = 10;

const SHORT_TIME = /\b(glow|intake heater|grid heater|starter|solenoid|winch)/i;
const MOVING = /\b(winch|lift|hoist|door|wiper|fan|blower|seat|window|roof motor|tail ?lift)\b/i;
const HOT = /\b(heater|heated|plate|jacket|glow)\b/i;

/** Loads as they are marked; the fields are optional on every kind that uses current. */
type Load = CircuitPart & { readonly onSeconds?: number; readonly moves?: boolean };

function loadOf(circuit: CircuitFile, functionId: string): Load | undefined {
  const load = circuit.functions.find((one) => one.id === functionId)?.load.split(':')[0];
  return circuit.parts.find((part) => part.id === load) as Load | undefined;
}

function namesOf(circuit: CircuitFile, functionId: string): string {
  const name = circuit.functions.find((one) => one.id === functionId)?.name ?? '';
  return `${name} ${loadOf(circuit, functionId)?.name ?? ''}`;
}

/** Whether what a function drives moves. */
export function isMoving(circuit: CircuitFile, functionId: string): boolean {
  const load = loadOf(circuit, functionId);
  return load?.moves ?? (load?.kind === 'motor' || MOVING.test(namesOf(circuit, functionId)));
}

/** Whether it gets hot enough to burn a hand. */
export function isHot(circuit: CircuitFile, functionId: string): boolean {
  return loadOf(circuit, functionId)?.kind === 'heater' || HOT.test(namesOf(circuit, functionId));
}

/** How long a function may be on at a time, seconds; null where nothing limits it. */
export function mayBeOnSeconds(circuit: CircuitFile, functionId: string): number | null {
  const load = loadOf(circuit, functionId);
  if (load) return partMayBeOnSeconds(circuit, load);
  return SHORT_TIME.test(namesOf(circuit, functionId)) ? UNKNOWN_SECONDS : null;
}

/** The same of a part, whether or not a function is seen by it. */
export function partMayBeOnSeconds(
  { functions }: CircuitFile,
  part: CircuitFile['parts'][number],
): number | null {
  if (part.onSeconds !== undefined) return part.onSeconds;
  const names = [
    part.name,
    ...functions.filter(({ load }) => load.split(':')[0] === part.id).map(({ name }) => name),
  ];
  return SHORT_TIME.test(names.join(' ')) ? UNKNOWN_SECONDS : null;
}
