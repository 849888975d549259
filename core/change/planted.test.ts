/** Eighty changes planted by a table of their own: what is unsafe is named for its reason, what is sound is left in peace. */
import { compare } from '../../testing/againstSpice';
import { type Planted, SOUND, UNSAFE } from '../../testing/plannedChanges';
import type { CircuitFile, Condition } from '../format';
import { conditionOf, dialsOf } from '../live';
import { CircuitModel, UNALTERED } from '../network';
import { type At, examine } from '.';

const looked = new Map<Planted, ReturnType<typeof examine>>();
function lookedAt(planted: Planted) {
  const known =
    looked.get(planted) ?? examine(planted.circuit, { edits: [...planted.edits], ...planted.facts });
  looked.set(planted, known);
  expect(known.played.stuck).toBeNull();
  return known;
}

test.each(UNSAFE)('found: $name', (planted) => {
  const own = lookedAt(planted).findings.filter(({ kind }) => kind === planted.kind);
  const named = own.find(({ words }) => words.includes(planted.says));
  expect(own.map(({ words }) => words)).toEqual(
    expect.arrayContaining([expect.stringContaining(planted.says)]),
  );
  expect(named!.remedy.length).toBeGreaterThan(10);
  for (const { words } of lookedAt(planted).findings) expect(words).not.toMatch(/NaN|undefined|null/);
});

test('of forty sound changes at most one is blamed', () => {
  const blamed = SOUND.flatMap((planted) => {
    const dangers = lookedAt(planted).findings.filter(({ level }) => level === 'danger');
    return dangers.length === 0 ? [] : [`${planted.name}: ${dangers.map(({ words }) => words).join(' ')}`];
  });
  process.stdout.write(
    `changes: ${UNSAFE.length} unsafe found, ${SOUND.length - blamed.length} of ${SOUND.length} sound left in peace\n`,
  );
  expect(UNSAFE.length).toBeGreaterThanOrEqual(40);
  expect(SOUND.length).toBeGreaterThanOrEqual(40);
  expect(blamed.slice(1)).toEqual([]);
});

/** The settings that findings name, and the first and last of all, as conditions of a circuit that is asked in them. */
function settled(
  circuit: CircuitFile,
  all: readonly At[],
): { readonly model: CircuitModel; readonly conditions: Condition[] } {
  const model = new CircuitModel(circuit);
  const dials = dialsOf(circuit);
  const conditions = all.map((at) => {
    const condition = conditionOf(dials, at);
    const id = model.adopt(condition);
    return { ...condition, id, name: JSON.stringify(at) };
  });
  return { model, conditions };
}

test('volts and amperes of before and after agree with ngspice in the settings that findings name', () => {
  let compared = 0;
  const wrong: string[] = [];
  for (const planted of [...UNSAFE, ...SOUND]) {
    const { scene, findings } = lookedAt(planted);
    const all: At[] = [
      ...findings.flatMap(({ at }) => (at ? [at] : [])),
      scene.settings[0]!.at,
      scene.settings[scene.settings.length - 1]!.at,
    ];
    const own = [...new Map(all.map((at) => [JSON.stringify(at), at])).values()].slice(0, 6);
    for (const circuit of [scene.before, scene.after]) {
      const { model, conditions } = settled(circuit, own);
      const result = compare(
        model,
        conditions.map((condition) => ({ condition, alteration: UNALTERED, words: planted.name })),
      );
      compared += result.compared + result.history;
      wrong.push(...result.wrong);
    }
    // The points that findings rest on are those of the solver that was compared.
    for (const at of own) {
      const setting = scene.settings.find((one) => JSON.stringify(one.at) === JSON.stringify(at));
      if (!setting) continue;
      const straight = settled(scene.after, [at]);
      const point = straight.model.solve(straight.conditions[0]!.id, UNALTERED);
      point.amps.forEach((amps, branch) => {
        expect(Math.abs(amps - setting.after.amps[branch]!)).toBeLessThan(1e-6 * Math.max(1, Math.abs(amps)));
      });
    }
  }
  process.stdout.write(
    `changes: ${compared} operating points before and after beside ngspice, ${wrong.length} differ\n`,
  );
  expect(wrong).toEqual([]);
  expect(compared).toBeGreaterThan(300);
});
