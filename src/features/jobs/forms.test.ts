/** What is typed in the forms of a job, as the entry that the server takes, or the field that is wrong and why. */
import { checkEvent, type EventBody } from '#core/format';
import { demoCircuit } from '../../../testing/circuits';
import { type ComplaintWords, entryOf } from './ComplaintForm';
import { jobAsked, type NewJobWords } from './newJob';
import { entriesOf, lineOf, NO_LINE, type RepairWords } from './repairEntries';

/** By the schema that the server checks it by. */
function isTaken(body: EventBody): boolean {
  return checkEvent({
    id: '0a6f8a52-3c7e-4f7e-9d62-6d6f6a1f2b3c',
    jobId: '1a6f8a52-3c7e-4f7e-9d62-6d6f6a1f2b3c',
    version: 1,
    madeAt: '2026-03-03T10:00:00.000Z',
    clientOrder: 0,
    body,
  }).ok;
}

describe('a complaint', () => {
  const words = (more: Partial<ComplaintWords> = {}): ComplaintWords => ({
    words: ' fan dead ',
    function: '',
    condition: '',
    chosenFor: '',
    state: 'dead',
    pluggedIn: '',
    hadAppliance: false,
    watts: '',
    fusesTaken: '0',
    changedBefore: '',
    heard: '',
    sound: '',
    ...more,
  });

  test('words alone are enough; what is empty is not said', () => {
    expect(entryOf(words())).toEqual({ ok: true, body: { kind: 'complaint', words: 'fan dead' } });
  });

  test('function and condition come together, the appliance with what is known of it', () => {
    const read = entryOf(
      words({
        function: 'fan',
        condition: 'fan-on',
        state: 'weak',
        hadAppliance: true,
        watts: '1,5k',
        fusesTaken: '2',
        sound: ' hum ',
      }),
    );
    expect(read).toMatchObject({ ok: false, field: 'watts' });
    const right = entryOf(
      words({
        function: 'fan',
        condition: 'fan-on',
        hadAppliance: true,
        watts: '1500',
        fusesTaken: '2',
        sound: ' hum ',
      }),
    );
    expect(right).toEqual({
      ok: true,
      body: {
        kind: 'complaint',
        words: 'fan dead',
        function: 'fan',
        condition: 'fan-on',
        state: 'dead',
        appliance: { fusesTaken: 2, watts: 1500 },
        sound: 'hum',
      },
    });
    if (right.ok) expect(isTaken(right.body)).toBe(true);
    expect(entryOf(words({ function: 'fan' }))).toEqual({
      ok: true,
      body: { kind: 'complaint', words: 'fan dead' },
    });
  });

  test.each([
    [{ words: '  ' }, 'words', 'Write in a few words'],
    [{ hadAppliance: true, watts: 'many' }, 'watts', 'They may stay empty'],
    [{ fusesTaken: '-1' }, 'fusesTaken', 'How many fuses'],
  ])('%j is refused where it is wrong', (more, field, message) => {
    const read = entryOf(words(more));
    expect(read).toMatchObject({ ok: false, field });
    expect(!read.ok && read.message).toContain(message);
  });

  test('watts of an appliance that was taken back do not matter', () => {
    expect(entryOf(words({ hadAppliance: false, watts: 'many' })).ok).toBe(true);
  });
});

describe('a repair', () => {
  const words = (more: Partial<RepairWords> = {}): RepairWords => ({
    words: 'New earth ring, crimped and greased',
    parts: [{ name: 'earth ring', count: '1' }],
    minutes: '',
    undo: '',
    temporary: false,
    due: '',
    lines: [],
    ends: [],
    reason: '',
    ...more,
  });

  test('parts without a name are not used, counts are read as they are written', () => {
    const read = entriesOf(
      words({
        parts: [
          { name: ' earth ring ', count: '2' },
          { name: '', count: 'x' },
          { name: 'wire 2.5 mm², m', count: '0,5' },
        ],
        minutes: '20',
      }),
    );
    expect(read).toEqual({
      ok: true,
      bodies: [
        {
          kind: 'repair',
          words: 'New earth ring, crimped and greased',
          partsUsed: [
            { name: 'earth ring', count: 2 },
            { name: 'wire 2.5 mm², m', count: 0.5 },
          ],
          minutes: 20,
          temporary: false,
        },
      ],
    });
    if (read.ok) expect(read.bodies.every(isTaken)).toBe(true);
  });

  const circuit = demoCircuit('van-proving-cabinet');
  const known = {
    ...circuit,
    parts: circuit.parts.map((part) => (part.id === 'F31' ? { ...part, family: 'mini' as const } : part)),
  } as typeof circuit;
  const fuseLine = (ratingAmps: string) => ({
    ...NO_LINE,
    ...lineOf(known, 'F31'),
    deed: 'replaced',
    fitted: { family: 'mini', ratingAmps },
  });

  test('a fuse like the design is a repair; another is refused, and with day and reason a temporary part', () => {
    const of = (amps: string, more: Partial<RepairWords> = {}) =>
      entriesOf(words({ lines: [fuseLine(amps)], ...more }), known);
    expect(of('15')).toMatchObject({
      ok: true,
      bodies: [
        {
          temporary: false,
          lines: [
            {
              part: 'F31',
              wanted: { kind: 'fuse', family: 'mini', ratingAmps: 15 },
              fitted: { ratingAmps: 15 },
              nominalVolts: 12,
            },
          ],
        },
      ],
    });
    expect(of('x')).toMatchObject({ ok: false, field: 'lines.0.fitted' });
    expect(of('30')).toMatchObject({
      ok: false,
      field: 'temporary',
      message: expect.stringContaining('200 % of the design'),
    });
    const late = { temporary: true, due: '2026-12-24' };
    expect(of('20', late)).toMatchObject({ ok: false, field: 'reason' });
    const told = of('20', { ...late, reason: 'only one in the van' });
    expect(told).toMatchObject({
      ok: true,
      bodies: [{ reason: 'only one in the van', due: '2026-12-24', temporary: true }],
    });
    if (told.ok) expect(told.bodies.every(isTaken)).toBe(true);
  });

  test('a temporary one needs a day; what puts one right names it and is not temporary itself', () => {
    expect(entriesOf(words({ temporary: true }))).toMatchObject({ ok: false, field: 'due' });
    expect(entriesOf(words({ temporary: true, due: '1900-01-01' }))).toMatchObject({
      ok: false,
      field: 'due',
      message: expect.stringContaining('long past'),
    });
    const read = entriesOf(words({ temporary: true, due: '2026-04-01' }));
    expect(read.ok && read.bodies.map((body) => body.kind)).toEqual(['repair']);
    if (read.ok) expect(read.bodies.every(isTaken)).toBe(true);
    // A day that was left behind when the tick was taken back is not said.
    const back = entriesOf(words({ temporary: false, due: '2026-04-01' }));
    expect(back.ok && back.bodies).toEqual([expect.not.objectContaining({ due: '2026-04-01' })]);
    const ends = ['00000000-0000-4000-8000-000000000001'];
    expect(entriesOf(words({ ends }))).toMatchObject({ ok: true, bodies: [{ ends }] });
    expect(entriesOf(words({ ends, temporary: true, due: '2026-04-01' }))).toMatchObject({ ok: false });
  });

  test('parts from the stock name their item and place; without a place they are not taken', () => {
    const item = '00000000-0000-4000-8000-00000000000a';
    const place = '00000000-0000-4000-8000-00000000000b';
    const taken = words({ parts: [{ name: '', count: '1', item }] });
    const nameOf = (id: string) => (id === item ? 'Mini 15 A' : null);
    expect(entriesOf(taken, null, { place, nameOf })).toMatchObject({
      ok: true,
      bodies: [{ partsUsed: [{ name: 'Mini 15 A', count: 1, from: 'stock', stock: { item, place } }] }],
    });
    expect(entriesOf(taken, null, { place: null, nameOf })).toMatchObject({
      ok: false,
      message: expect.stringContaining('from which place'),
    });
  });

  test('a part line needs a name and a deed, and a joint that came out is made anew', () => {
    const of = (more: Partial<typeof NO_LINE>) => entriesOf(words({ lines: [{ ...NO_LINE, ...more }] }));
    expect(of({})).toMatchObject({ ok: false, field: 'lines.0.name' });
    expect(of({ name: 'Plug 4' })).toMatchObject({ ok: false, field: 'lines.0.deed' });
    const joined = { name: 'Plug 4', deed: 're-terminated', joint: 'crimped-terminal' };
    expect(of({ ...joined, pulled: 'no' })).toMatchObject({ ok: false, field: 'lines.0.pulled' });
    const read = of({ ...joined, pulled: 'yes', sealed: 'no', place: 'left sill' });
    expect(read).toMatchObject({
      ok: true,
      bodies: [{ lines: [{ joint: { method: 'crimped-terminal', pulled: true, sealed: false } }] }],
    });
    if (read.ok) expect(read.bodies.every(isTaken)).toBe(true);
  });

  test.each([
    [{ words: '' }, 'words'],
    [{ minutes: 'long' }, 'minutes'],
    [
      {
        parts: [
          { name: 'ring', count: '1' },
          { name: 'fuse', count: 'some' },
        ],
      },
      'parts.1.count',
    ],
  ])('%j names the field', (more, field) => {
    expect(entriesOf(words(more))).toMatchObject({ ok: false, field });
  });
});

describe('a new job', () => {
  const known = { id: 'v1', name: 'Bakery van', plate: 'MB 18', nominalVolts: 12, circuits: 3 };
  const unmapped = { ...known, id: 'v2', nominalVolts: null, circuits: 0 };
  type Known = Parameters<typeof jobAsked>[1];
  const words = (more: Partial<NewJobWords> = {}): NewJobWords => ({
    purpose: 'fault',
    function: null,
    pluggedIn: null,
    pluggedWords: '',
    changed: false,
    changedWords: '',
    vehicleId: 'v1',
    found: null,
    vehicleName: '',
    plate: '',
    title: 'Step lamp dead',
    sketch: false,
    load: '',
    pattern: null,
    kind: null,
    interlocks: [],
    returns: null,
    volts: null,
    how: 'dead',
    ids: { vehicle: 'fresh', tried: null },
    ...more,
  });
  const asked = (more: Partial<NewJobWords>, vehicle: object | undefined) =>
    jobAsked(words(more), vehicle as Known);

  test('a mapped vehicle needs the words only; a pattern that was tapped and not asked for is left out', () => {
    expect(asked({ pattern: 'relay', kind: 'lamp' }, known)).toEqual({
      ok: true,
      job: { title: 'Step lamp dead', vehicleId: 'v1' },
    });
    expect(asked({ sketch: true, pattern: 'relay', kind: 'lamp', load: ' lamp ' }, known)).toEqual({
      ok: true,
      job: {
        title: 'Step lamp dead',
        vehicleId: 'v1',
        pattern: 'relay',
        kind: 'lamp',
        state: 'dead',
        load: 'lamp',
      },
    });
  });

  test('a function that was tapped is sent with how it fails, and not beside a pattern', () => {
    expect(asked({ function: 'fan', how: 'weak' }, known)).toMatchObject({
      job: { function: 'fan', state: 'weak' },
    });
    const sketched = asked({ function: 'fan', sketch: true, pattern: 'relay' }, known);
    expect(sketched.ok && 'function' in sketched.job).toBe(false);
  });

  test('what was plugged in or changed is sent where something was said of it', () => {
    expect(asked({ pluggedIn: 'nothing' }, known)).toMatchObject({ job: { nothingPluggedIn: true } });
    expect(asked({ pluggedIn: 'something', pluggedWords: ' cool box ' }, known)).toMatchObject({
      job: { pluggedIn: 'cool box' },
    });
    expect(asked({ changed: true, changedWords: 'new radio' }, known)).toMatchObject({
      job: { changedBefore: 'new radio' },
    });
    const nothing = asked({ pluggedWords: 'cool box', changedWords: 'new radio' }, known);
    expect(nothing).toEqual({ ok: true, job: { title: 'Step lamp dead', vehicleId: 'v1' } });
  });

  test('work is no fault: it asks for no pattern and no voltage, and says nothing of what failed', () => {
    const work = asked(
      { purpose: 'survey', title: 'Read the cab box', function: 'fan', pluggedIn: 'something' },
      unmapped,
    );
    expect(work).toEqual({ ok: true, job: { title: 'Read the cab box', vehicleId: 'v2', work: 'survey' } });
    expect(asked({ purpose: 'change', vehicleName: 'White tipper' }, undefined)).toMatchObject({
      job: { work: 'change', vehicleName: 'White tipper' },
    });
    expect(asked({ purpose: 'mapping', title: '' }, known)).toMatchObject({ ok: false, field: 'title' });
  });

  test('what has to be made first is sent where the pattern asks for it', () => {
    const locked = { sketch: true, kind: 'motor', interlocks: ['neutral', 'door'] } as const;
    expect(asked({ ...locked, pattern: 'solenoid-button' }, known)).toMatchObject({
      job: { interlocks: ['neutral', 'door'] },
    });
    const without = asked({ ...locked, pattern: 'fuse-switch-load' }, known);
    expect(without.ok && 'interlocks' in without.job).toBe(false);
  });

  test('one that is not here yet gets a name, a voltage and the same id at every try', () => {
    expect(asked({}, undefined)).toMatchObject({ ok: false, field: 'vehicleName' });
    expect(asked({ vehicleName: 'White tipper' }, undefined)).toMatchObject({ ok: false });
    const once = asked({ vehicleName: 'White tipper', volts: 24 }, undefined);
    expect(once).toEqual({
      ok: true,
      job: {
        title: 'Step lamp dead',
        vehicleId: 'fresh',
        vehicleName: 'White tipper',
        plate: '',
        nominalVolts: 24,
      },
    });
    expect(asked({ vehicleName: 'White tipper', volts: 24 }, undefined)).toEqual(once);
  });

  test('no verdict is given without the nominal voltage: a pattern asks for it, words alone do not', () => {
    expect(asked({}, unmapped).ok).toBe(true);
    expect(asked({ pattern: 'relay' }, unmapped)).toMatchObject({
      ok: false,
      message: expect.stringContaining('nominal voltage'),
    });
    expect(asked({ pattern: 'relay', volts: 12 }, unmapped)).toMatchObject({ job: { nominalVolts: 12 } });
    expect(asked({ title: ' ' }, known)).toMatchObject({ ok: false, field: 'title' });
  });
});
