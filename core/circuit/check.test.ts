import fc from 'fast-check';
import { DEMO_CIRCUITS, demoCircuit, demoText } from '../../testing/circuits';
import { checkPanelSet, checkPanelSetText } from '../format/checkPanelSet';
import { checkReadingsText } from '../format/checkReadings';
import type { CircuitFile } from '../format/circuitSchema';
import { checkCircuit, checkCircuitText } from './checkCircuit';
import { mergeCircuits } from './merge';

type Loose = Record<string, unknown> & { parts: Record<string, unknown>[] };
function broken(change: (file: Loose) => void): unknown {
  const file = JSON.parse(demoText('trailer-lamps.circuit.json')) as Loose;
  change(file);
  return file;
}

function problemsOf(data: unknown): { path: string; message: string; code: string }[] {
  const checked = checkCircuit(data);
  return checked.ok ? [] : [...checked.problems];
}

describe('the demo files', () => {
  test.each(DEMO_CIRCUITS)('%s is clean and survives a round trip', (name) => {
    const circuit = demoCircuit(name);
    const again = checkCircuitText(JSON.stringify(circuit));
    expect(again).toEqual({ ok: true, value: circuit });
  });

  test('the panel sets are clean: three boxes of the van, more than forty slots', () => {
    const van = checkPanelSetText(demoText('van.panel-set.json'));
    const trailer = checkPanelSetText(demoText('trailer.panel-set.json'));
    expect(trailer.ok).toBe(true);
    if (!van.ok) throw new Error('The van has problems.');
    expect(van.value.panels).toHaveLength(3);
    expect(van.value.panels.flatMap((panel) => panel.slots).length).toBeGreaterThan(40);
  });
});

describe('a circuit file with mistakes', () => {
  test('broken JSON names line and column', () => {
    const checked = checkCircuitText('{\n  "format": "every-trace/circuit",\n  "version": 1,,\n}');
    expect(checked.ok).toBe(false);
    if (!checked.ok) expect(checked.problems[0]?.message).toMatch(/line 3, column \d+/);
  });

  test('an unknown part kind is named, once, and not as a list of every kind’s complaints', () => {
    const problems = problemsOf(broken((file) => Object.assign(file.parts[3]!, { kind: 'flux-capacitor' })));
    expect(problems).toHaveLength(1);
    expect(problems[0]?.message).toContain('“flux-capacitor” is not a kind');
    expect(problems[0]?.path).toBe('/parts/ST');
  });

  test('a pin to nowhere, an unknown place and a repeated id are reported together', () => {
    const problems = problemsOf(
      broken((file) => {
        (file.parts[5]!.pins as Record<string, string>).out = 'nowhere';
        file.parts[6]!.place = 'the moon';
        file.parts.push({ ...file.parts[7]! });
      }),
    );
    // The id of a place is checked by its shape already.
    expect(problems.length).toBeGreaterThan(0);
    const meaning = problemsOf(
      broken((file) => {
        (file.parts[5]!.pins as Record<string, string>).out = 'nowhere';
        file.parts[6]!.place = 'moon';
        file.parts.push({ ...file.parts[7]! });
      }),
    );
    expect(meaning.map((one) => one.code)).toEqual(
      expect.arrayContaining(['pin-to-nowhere', 'unknown-place', 'repeated-id']),
    );
    expect(meaning.find((one) => one.code === 'pin-to-nowhere')).toMatchObject({
      path: '/parts/FT1/pins/out',
      message: expect.stringContaining('“nowhere”'),
    });
  });

  test('two sources shorted are refused', () => {
    const crossed = problemsOf(
      broken((file) => {
        const battery = file.parts[0] as { pins: { plus: string; minus: string } };
        file.parts.push({
          ...battery,
          id: 'B2',
          pins: { plus: battery.pins.minus, minus: battery.pins.plus },
        } as never);
      }),
    );
    expect(crossed[0]).toMatchObject({
      code: 'sources-shorted',
      message: expect.stringContaining('short each other'),
    });
    const self = problemsOf(
      broken((file) => {
        file.parts.push({ ...file.parts[0]!, id: 'B2', pins: { plus: 'tow-plus', minus: 'tow-plus' } });
      }),
    );
    expect(self[0]?.code).toBe('source-shorted');
  });

  test('a newer version and another format are refused with a clear word', () => {
    expect(problemsOf(broken((file) => Object.assign(file, { version: 2 })))[0]?.message).toContain(
      'up to version 1',
    );
    expect(problemsOf(broken((file) => Object.assign(file, { format: 'x' })))[0]?.code).toBe('wrong-format');
    expect(problemsOf([])[0]?.code).toBe('not-an-object');
  });

  test('absurd values are refused', () => {
    for (const ohms of [-1, 0, 1e30, 'x', null]) {
      const problems = problemsOf(broken((file) => Object.assign(file.parts[1]!, { ohms })));
      expect(problems[0]?.path).toBe('/parts/ET/ohms');
    }
  });

  test('five megabytes of noise are refused at once', () => {
    const checked = checkCircuitText('x'.repeat(5 * 1024 * 1024));
    expect(checked).toMatchObject({ ok: false, problems: [{ code: 'too-large' }] });
  });

  test('no JSON value crashes the checkers', () => {
    fc.assert(
      fc.property(fc.jsonValue(), (value) => {
        expect(checkCircuit(value).ok).toBe(false);
        expect(checkPanelSet(value).ok).toBe(false);
      }),
    );
  });

  test('a circuit with one value replaced by anything is refused or still a circuit', () => {
    const text = demoText('trailer-lamps.circuit.json');
    fc.assert(
      fc.property(fc.nat(), fc.jsonValue(), (pick, value) => {
        const file = JSON.parse(text) as Loose;
        const part = file.parts[pick % file.parts.length]!;
        const keys = Object.keys(part);
        part[keys[pick % keys.length]!] = value;
        const checked = checkCircuit(file);
        if (!checked.ok) expect(checked.problems.every((one) => one.message.length > 5)).toBe(true);
      }),
      { numRuns: 200 },
    );
  });
});

describe('panel sets', () => {
  test('slots that overlap, repeat a number or leave the panel are each named', () => {
    const file = JSON.parse(demoText('van.panel-set.json')) as {
      panels: { id: string; width: number; slots: { id: string; x: number; y: number; number: string }[] }[];
    };
    const [first, second, third] = file.panels[1]!.slots;
    Object.assign(second!, { x: first!.x, y: first!.y });
    Object.assign(third!, { number: '1' });
    file.panels[1]!.slots[4]!.x = 1999;
    const checked = checkPanelSet(file);
    expect(checked.ok).toBe(false);
    if (!checked.ok) {
      expect(checked.problems.map((one) => one.code)).toEqual(
        expect.arrayContaining(['overlap', 'repeated-number', 'outside-panel']),
      );
    }
  });
});

describe('several circuits of one vehicle', () => {
  test('shared parts are joined once', () => {
    const files = [demoCircuit('van-proving-cabinet'), demoCircuit('van-demist')];
    const { circuit, problems } = mergeCircuits(files);
    expect(problems).toEqual([]);
    expect(circuit.parts.filter((part) => part.id === 'MF1')).toHaveLength(1);
    expect(checkCircuit({ ...circuit, id: 'merged' }).ok).toBe(true);
  });

  test('a part that differs between files is a problem that names both', () => {
    const one = demoCircuit('van-proving-cabinet');
    const other = structuredClone(demoCircuit('van-demist')) as CircuitFile;
    const fuse = other.parts.find((part) => part.id === 'MF1');
    if (fuse?.kind === 'fuse') Object.assign(fuse, { ratingAmps: 50 });
    const { problems } = mergeCircuits([one, other]);
    expect(problems[0]?.message).toMatch(
      /Main fuse 1 \(80 A\) \(MF1\) is not the same in .*Heated mirrors.* and in Proving cabinet/,
    );
  });
});

describe('readings files', () => {
  test('a reading at a point the circuit does not have is named', () => {
    const file = {
      format: 'every-trace/readings',
      version: 1,
      complaint: { function: 'left-marker', condition: 'side-on' },
      readings: [
        {
          test: { kind: 'volts', node: 'nowhere', against: 'tow-minus', condition: 'side-on' },
          value: { volts: 12 },
        },
      ],
    };
    const checked = checkReadingsText(JSON.stringify(file), demoCircuit('trailer-lamps'));
    expect(checked).toMatchObject({ ok: false, problems: [{ path: '/readings/0/test/node' }] });
  });
});
