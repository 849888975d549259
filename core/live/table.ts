/** Every function in every combination of key and switches, and where two circuits differ in it. */

import { openOverloaded } from '../faults';
import { type CircuitFile, type Condition, csvCell, type KeyPositionName } from '../format';
import { intervene } from '../hands';
import type { CircuitModel, FunctionOutcome } from '../network';
import type { LiveSetting } from './setting';

/** Something that is turned, with the positions it has. */
export interface Dial {
  /** Part id; `key`, `engine`. */
  readonly id: string;
  readonly name: string;
  readonly positions: readonly string[];
}

/** Rows beyond which a table helps nobody. */
export const MOST_ROWS = 1024;

/** What can be turned on a circuit. Of key positions that no contact tells apart the first stands for all. */
export function dialsOf(circuit: CircuitFile): Dial[] {
  const dials: Dial[] = [];
  const keyPositions = (['off', 'run', 'accessory', 'crank'] as const).filter(
    (position, index, all) =>
      !all.slice(0, index).some((before) => keyPattern(circuit, before) === keyPattern(circuit, position)),
  );
  if (keyPositions.length > 1) dials.push({ id: 'key', name: 'Key', positions: keyPositions });
  const feelsEngine = circuit.parts.some(
    (part) =>
      (part.kind === 'charging-source' && part.active === 'engine-running') ||
      (part.kind === 'module-output' && part.rule.some((line) => line.engineRunning !== undefined)),
  );
  if (feelsEngine) dials.push({ id: 'engine', name: 'Engine', positions: ['stopped', 'running'] });
  for (const part of circuit.parts) {
    if (part.kind === 'switch') {
      const others = part.positions.filter((one) => one !== part.rest);
      dials.push({ id: part.id, name: part.name, positions: [part.rest, ...others] });
    } else if (part.kind === 'socket' && part.appliances.length > 0) {
      const positions = ['nothing', ...part.appliances.map((one) => one.id)];
      dials.push({ id: part.id, name: part.name, positions });
    }
  }
  return dials;
}

/** What every contact of the key does in a position. */
export function keyPattern(circuit: CircuitFile, position: string): string {
  return circuit.parts
    .map((part) => {
      if (part.kind === 'key-contact') return part.closedIn.some((one) => one === position) ? '1' : '0';
      if (part.kind === 'module-output') {
        return part.rule
          .map((line) => (!line.key || line.key.some((one) => one === position) ? '1' : '0'))
          .join('');
      }
      return '';
    })
    .join(' ');
}

/** The condition in which every dial stands as said; dials that are not said are at rest. */
export function conditionOf(
  dials: readonly Dial[],
  at: Readonly<Record<string, string>>,
): Omit<Condition, 'id' | 'name'> {
  const switches: Record<string, string> = {};
  const pluggedIn: Record<string, string> = {};
  let key: KeyPositionName = 'off';
  let engineRunning: boolean | undefined;
  for (const dial of dials) {
    const position = at[dial.id] ?? dial.positions[0]!;
    if (dial.id === 'key') key = position as KeyPositionName;
    else if (dial.id === 'engine') engineRunning = position === 'running';
    else if (dial.positions[0] === 'nothing') {
      if (position !== 'nothing') pluggedIn[dial.id] = position;
    } else switches[dial.id] = position;
  }
  return {
    key,
    ...(Object.keys(switches).length > 0 ? { switches } : {}),
    ...(Object.keys(pluggedIn).length > 0 ? { pluggedIn } : {}),
    ...(engineRunning === undefined ? {} : { engineRunning }),
  };
}

interface TableRow {
  readonly at: Readonly<Record<string, string>>;
  /** State of each function, in the circuit's order. */
  readonly states: readonly FunctionOutcome[];
  /** The same with the second setting's faults and hands; null where nothing is compared. */
  readonly other: readonly FunctionOutcome[] | null;
}

export interface StateTable {
  readonly dials: readonly Dial[];
  readonly functions: readonly { readonly id: string; readonly name: string }[];
  readonly rows: readonly TableRow[];
}

/** How many rows a table over these dials has. */
export function rowCount(dials: readonly Dial[]): number {
  return dials.reduce((product, dial) => product * dial.positions.length, 1);
}

/**
 * One row for every combination of the dials that are varied; the others stand as in `at`. Throws when there would be
 * more than `MOST_ROWS` rows.
 */
export function stateTable(
  model: CircuitModel,
  varied: readonly string[],
  at: Readonly<Record<string, string>>,
  one: Pick<LiveSetting, 'faults' | 'done' | 'fusesOpen'>,
  other: Pick<LiveSetting, 'faults' | 'done' | 'fusesOpen'> | null,
): StateTable {
  const dials = dialsOf(model.circuit);
  const turning = dials.filter((dial) => varied.includes(dial.id));
  if (rowCount(turning) > MOST_ROWS) {
    throw new Error(`${rowCount(turning)} combinations are too many to read. Vary fewer switches.`);
  }
  const outcomes = (
    condition: Omit<Condition, 'id' | 'name'>,
    { faults, done, fusesOpen }: Pick<LiveSetting, 'faults' | 'done' | 'fusesOpen'>,
  ) => {
    const id = model.adopt(condition);
    const alteration = intervene(model.network, faults, done);
    const point = fusesOpen ? openOverloaded(model, id, alteration).point : model.solve(id, alteration);
    return model.circuit.functions.map((each) => model.outcome(each, point));
  };
  return {
    dials: turning,
    functions: model.circuit.functions.map(({ id, name }) => ({ id, name })),
    rows: combinations(turning).map((row) => {
      const condition = conditionOf(dials, { ...at, ...row });
      return {
        at: row,
        states: outcomes(condition, one),
        other: other ? outcomes(condition, other) : null,
      };
    }),
  };
}

/** Every combination once, the last dial turning fastest. */
export function combinations(dials: readonly Dial[]): Record<string, string>[] {
  return dials.reduce<Record<string, string>[]>(
    (rows, dial) =>
      rows.flatMap((row) => dial.positions.map((position) => ({ ...row, [dial.id]: position }))),
    [{}],
  );
}

/** The table as CSV: a column a dial, a column a function, and "now/then" where two are compared and differ. */
export function tableCsv(table: StateTable): string {
  const head = [...table.dials.map((dial) => dial.name), ...table.functions.map((one) => one.name)];
  const rows = table.rows.map((row) => [
    ...table.dials.map((dial) => row.at[dial.id]!),
    ...row.states.map((state, index) => {
      const other = row.other?.[index];
      return other === undefined || other === state ? state : `${state} / ${other}`;
    }),
  ]);
  return [head, ...rows].map((row) => row.map(csvCell).join(',')).join('\n');
}
