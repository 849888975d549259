import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { buildSync } from 'esbuild';
import { runNgspice } from '../testing/ngspice';

const VAN = 'demo/van-proving-cabinet.circuit.json';
const folder = mkdtempSync(path.join(tmpdir(), 'every-trace-cli-'));
const BUNDLE = path.join(folder, 'trace.mjs');

// Bundled once: starting the compiler for every question would take a second each.
beforeAll(() => {
  buildSync({
    entryPoints: ['cli/trace.ts'],
    bundle: true,
    platform: 'node',
    format: 'esm',
    outfile: BUNDLE,
    alias: { '#core': path.resolve('core') },
  });
});

function trace(...args: string[]): { code: number | null; out: string; err: string } {
  const result = spawnSync(process.execPath, [BUNDLE, ...args], { encoding: 'utf8' });
  return { code: result.status, out: result.stdout, err: result.stderr };
}

function file(name: string, content: unknown): string {
  const where = path.join(folder, name);
  writeFileSync(where, typeof content === 'string' ? content : JSON.stringify(content));
  return where;
}

test('the command itself answers as the bundle does', () => {
  const args = ['solve', VAN, '--condition', 'fan-on', '--json'];
  const result = spawnSync('npm', ['run', '-s', 'trace', '--', ...args], { encoding: 'utf8' });
  expect(result.status).toBe(0);
  expect(result.stdout).toBe(trace(...args).out);
});

test('check says what a clean file holds', () => {
  expect(trace('check', VAN)).toMatchObject({ code: 0, out: expect.stringContaining('31 parts') });
  expect(trace('check', 'demo/van.panel-set.json')).toMatchObject({
    code: 0,
    out: expect.stringContaining('3 panels'),
  });
});

test('check reports every problem with its place on standard error, and gives 1', () => {
  const bad = file('bad.json', {
    format: 'every-trace/circuit',
    version: 1,
    parts: [{ kind: 'warp-core', id: 'X' }],
  });
  const result = trace('check', bad);
  expect(result.code).toBe(1);
  expect(result.err).toContain('“nodes” is missing');
  expect(result.err).toContain('/parts/X: “warp-core” is not a kind');
  expect(trace('check', path.join(folder, 'absent.json'))).toMatchObject({ code: 1 });
  expect(trace('check', file('noise.json', 'x'.repeat(5_000_000))).err).toContain('at most 4 MB');
});

test('solve gives the volts of a faulty circuit', () => {
  const result = trace('solve', VAN, '--condition', 'fan-on', '--fault', 'F31:open', '--json');
  expect(result.code).toBe(0);
  const solved = JSON.parse(result.out) as {
    nodes: { node: string; volts: number }[];
    functions: { function: string; state: string }[];
  };
  expect(solved.nodes.find((one) => one.node === 'bay-bus')?.volts).toBeGreaterThan(12.5);
  expect(solved.nodes.find((one) => one.node === 'f31-out')?.volts).toBeLessThan(0.01);
  expect(solved.functions.find((one) => one.function === 'cabinet-fan')?.state).toBe('dead');
});

test('solve takes what was done to the circuit, opens overloaded fuses, and starts from a condition before', () => {
  const pulled = trace('solve', VAN, '--condition', 'fan-on', '--do', 'pulled:F31', '--json');
  expect(JSON.parse(pulled.out)).toMatchObject({ blown: [], start: 'relays at rest', oscillating: [] });
  const short = ['solve', VAN, '--condition', 'fan-on', '--fault', 'W32:short-to-earth'];
  expect(trace(...short).out).toMatch(
    /F31 +overloaded: \d+\.\d A on 15 A; no opening time known for this family/,
  );
  const opened = trace(...short, '--open-fuses', '--after', 'all-off');
  expect(opened.out).toContain('F31                  opened');
  expect(opened.out).toContain('Start: relays as all-off left them.');
  expect(opened.out).not.toContain('overloaded');
});

test('what cannot be done is said with every form', () => {
  const wrong = (...what: string[]) => trace('solve', VAN, '--condition', 'fan-on', ...what);
  expect(wrong('--do', 'kick:F31')).toMatchObject({
    code: 2,
    err: expect.stringContaining('jumper:POINT:POINT:AMPS'),
  });
  expect(wrong('--do', 'pulled:F99')).toMatchObject({ code: 2, err: expect.stringContaining('no part F99') });
  expect(wrong('--after', 'yesterday')).toMatchObject({
    code: 2,
    err: expect.stringContaining('--after must be one of'),
  });
});

test('spice gives a netlist that ngspice runs as it is', () => {
  const result = trace('spice', VAN, '--condition', 'fan-on', '--fault', 'W34:high-resistance:3');
  expect(result.code).toBe(0);
  const [answer] = runNgspice([result.out]);
  expect(answer?.size).toBeGreaterThan(30);
});

test('next ranks, proposes and says why', () => {
  const readings = file('readings.json', {
    format: 'every-trace/readings',
    version: 1,
    complaint: { function: 'cabinet-fan', condition: 'fan-on' },
    readings: [
      { test: { kind: 'function', function: 'cabinet-fan', condition: 'fan-on' }, value: { state: 'dead' } },
      {
        test: { kind: 'volts', node: 'f31-out', against: 'bat-minus', condition: 'fan-on' },
        value: { volts: 0.02 },
      },
      {
        test: { kind: 'volts', node: 'bay-bus', against: 'bat-minus', condition: 'fan-on' },
        value: { volts: 12.5 },
      },
    ],
  });
  const result = trace('next', VAN, '--readings', readings);
  expect(result.code).toBe(0);
  expect(result.out).toMatch(/Fuse 31/);
  expect(result.out).toMatch(/Next: .*\n?.*min/);
});

test.each([
  [['fly'], 'not a verb'],
  [['solve', VAN], '--condition must be one of'],
  [['solve', VAN, '--condition', 'fan-on', '--fault', 'F31:melted'], 'is not a fault'],
  [['solve', VAN, '--condition', 'fan-on', '--fault', 'NOPE:open'], 'no part NOPE'],
  [['schema', 'poem'], 'There are the schemas'],
])('wrong use gives 2 and says so: %j', (args, words) => {
  const result = trace(...(args as string[]));
  expect(result.code).toBe(2);
  expect(result.err).toContain(words);
});

test('a plan is played: its sentences, the danger in it, and the way back', () => {
  const plan = (edits: readonly object[]) =>
    file(
      'plan.json',
      JSON.stringify({
        format: 'every-trace/plan',
        version: 1,
        id: 'shelf',
        name: 'Shelf lights taken out',
        purpose: '',
        edits,
      }),
    );
  const cut = {
    kind: 'cut',
    id: 'c',
    wire: 'W36',
    rest: 'W36x',
    share: 0.5,
    nodes: { a: 'ca', b: 'cb' },
    caps: { a: true, b: true },
  };
  const played = trace('plan', VAN, plan([cut]));
  expect(played.code).toBe(0);
  expect(played.out).toContain('a cap on each end');
  expect(played.out).toMatch(/! .* is an open end with 12\.\d V on it/);
  expect(played.out).toContain('crimped and sealed');
  const twice = trace('plan', VAN, plan([cut, cut]));
  expect([twice.code, twice.err]).toEqual([1, expect.stringContaining('stands twice')]);
  const stuck = trace('plan', VAN, plan([{ ...cut, wire: 'F31' }]));
  expect([stuck.code, stuck.err]).toEqual([1, expect.stringContaining('is no wire')]);
  expect(trace('plan', VAN).code).toBe(2);
});

test('schema prints the published schema', () => {
  const printed = JSON.parse(trace('schema', 'circuit').out) as { title: string };
  expect(printed.title).toContain('circuit file, version 1');
});

test('a circuit as text is read, solved, written, and its mistakes are named by line and column', () => {
  const step = file(
    'step.txt',
    'circuit step "Step lamp" 12 V\nbattery, fuse F1 10 A, switch S1, lamp L1 21 W, earth G1\n',
  );
  expect(trace('check', step).out).toContain('Step lamp: 5 parts');
  expect(trace('solve', step, '--condition', 's1-on').out).toMatch(/l1 +works/);
  expect(JSON.parse(trace('json', step).out)).toMatchObject({ format: 'every-trace/circuit', id: 'step' });
  const text = trace('text', VAN, '--short').out;
  expect(text).toContain('fuse F31 15 A mini, relay R4 contact, wire W32 GN/RD');
  const whole = file('van.txt', trace('text', VAN).out);
  expect(trace('check', whole).out).toContain('31 parts');
  const bad = trace('check', file('bad.txt', 'battery, fuze F1 10 A, lamp L1, earth'));
  expect(bad).toMatchObject({ code: 1 });
  expect(bad.err).toContain('line 1, column 10: “fuze” is no part. Did you mean “fuse”?');
});
