/** Files and entries of every version that there was, kept as they were, are read. */
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { checkCircuit } from '../../circuit';
import { checkBatch } from '../checkEvent';
import { checkJob } from '../checkJob';
import { checkPanelSet } from '../checkPanelSet';
import { checkReadingsText } from '../checkReadings';
import { ENTRY_VERSION } from './entries';
import { newestVersion, upgraded } from './upgrade';

const FOLDER = path.resolve('testing/stored');
const read = (name: string) => JSON.parse(readFileSync(path.join(FOLDER, name), 'utf8'));

test('every version of every format has a stored file, and no stored file is of a version that is to come', () => {
  const stored = readdirSync(FOLDER)
    .filter((name) => !name.startsWith('entries'))
    .map((name) => read(name) as { format: never; version: number });
  for (const format of ['circuit', 'panel-set', 'readings', 'job'].map(
    (one) => `every-trace/${one}` as never,
  )) {
    const versions = stored.filter((one) => one.format === format).map((one) => one.version);
    const wanted = Array.from({ length: newestVersion(format) }, (_, index) => index + 1);
    expect([format, versions.sort()]).toEqual([format, wanted]);
  }
  for (let version = 1; version <= ENTRY_VERSION; version++) {
    expect(readdirSync(FOLDER)).toContain(`entries.v${version}.json`);
  }
});

test.each(readdirSync(FOLDER))('%s is read', (name) => {
  const file = read(name);
  const [kind] = name.split('.');
  const checked = {
    circuit: () => checkCircuit(file),
    'panel-set': () => checkPanelSet(file),
    readings: () => {
      const circuit = checkCircuit(read('circuit.v1.json'));
      if (!circuit.ok) throw new Error('The stored circuit is not read.');
      return checkReadingsText(JSON.stringify(file), circuit.value);
    },
    job: () => checkJob(file),
    entries: () => checkBatch(file),
  }[kind as 'circuit']();
  expect(checked.ok ? [] : checked.problems).toEqual([]);
});

test('what is wrongly formed is left to the schema: a step neither throws nor hides it', () => {
  for (const rest of [
    {},
    { events: 5 },
    { events: [null, 3] },
    { vehicle: null },
    { circuits: {} },
    { circuits: [7] },
  ]) {
    const file = upgraded({ format: 'every-trace/job', version: 1, ...rest }, 'every-trace/job');
    expect(file).toMatchObject({ ok: true, value: { version: 2 } });
    expect(checkJob({ format: 'every-trace/job', version: 1, ...rest }).ok).toBe(false);
  }
});

test('an entry of a later version than this program is refused in words, and not for good', () => {
  const { events } = read('entries.v1.json');
  const later = checkBatch({ events: [{ ...events[0], version: ENTRY_VERSION + 1 }] });
  expect(later.ok ? [] : later.problems.map((one) => one.message)).toEqual([
    expect.stringContaining('Update the server'),
  ]);
});
