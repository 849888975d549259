import { readNotation } from '../notation/read';
import { writeNotation } from '../notation/write';

const TEXT =
  'circuit step "Step" 12 V\nbattery, fuse F1 10 A, switch S1, lamp L1 "Step lamp" 10 W, earth G1\n';

test('a part renamed in the text has its new name on every point, lead, place and function that bore the old', () => {
  const first = readNotation(TEXT).circuit!;
  const said = JSON.stringify(first);
  expect(said.match(/Step lamp/g)!.length).toBeGreaterThan(3);
  const text = writeNotation(first, { everything: false }).replaceAll('Step lamp', 'Entry lamp');
  const second = readNotation(text, first).circuit!;
  expect(second).toEqual(JSON.parse(said.replaceAll('Step lamp', 'Entry lamp')));
});

test('points that bore the id of a part without a name bear the name it is given', () => {
  const first = readNotation(TEXT).circuit!;
  const text = writeNotation(first, { everything: false }).replace('switch S1', 'switch S1 "Rocker"');
  const second = readNotation(text, first).circuit!;
  const names = [
    ...second.nodes.map((node) => node.name),
    ...second.nodes.flatMap((node) => (node.access ?? []).map((one) => one.lead)),
  ];
  expect(names).toContain('Rocker, load side');
  expect(names.filter((name) => /^(Switch )?S1, /.test(name))).toEqual([]);
});

test('what a person named otherwise stays', () => {
  const first = readNotation(TEXT).circuit!;
  const own = {
    ...first,
    functions: first.functions.map((one) => ({ ...one, name: 'Light at the step' })),
    nodes: first.nodes.map((node, index) =>
      index === 0 ? { ...node, name: 'Step lamps of both doors' } : node,
    ),
  };
  const text = writeNotation(own, { everything: false }).replaceAll('"Step lamp"', '"Entry lamp"');
  const second = readNotation(text, own).circuit!;
  expect(second.functions[0]!.name).toBe('Light at the step');
  expect(second.nodes.map((node) => node.name)).toContain('Step lamps of both doors');
});
