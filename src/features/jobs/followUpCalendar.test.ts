/** The calendar file, read back by a parser that had no part in making it. */
import { execFileSync } from 'node:child_process';
import fc from 'fast-check';
import ICAL from 'ical.js';
import type { FollowUp } from './followUp';
import { followUpCalendar } from './followUpCalendar';

const MADE = new Date('2026-11-29T12:00:00Z');

const item = (more: Partial<FollowUp>): FollowUp => ({
  id: '00000000-0000-4000-8000-000000000001',
  jobId: '00000000-0000-4000-8000-000000000002',
  title: 'Fan dead',
  vehicleName: 'Bakery van',
  sort: 'watch',
  words: 'Plug dry?',
  due: '2026-12-24',
  ...more,
});

function eventsOf(text: string) {
  const calendar = new ICAL.Component(ICAL.parse(text));
  return calendar.getAllSubcomponents('vevent').map((one) => new ICAL.Event(one));
}

test('a follow-up with a day is one event of that whole day; one without a day is none', () => {
  const [event, ...others] = eventsOf(
    followUpCalendar([item({}), item({ id: '00000000-0000-4000-8000-000000000003', due: null })], MADE),
  );
  expect(others).toEqual([]);
  expect(event!.uid).toBe('00000000-0000-4000-8000-000000000001@every-trace');
  expect(event!.startDate.isDate).toBe(true);
  expect(event!.startDate.toString()).toBe('2026-12-24');
  expect(event!.endDate.toString()).toBe('2026-12-25');
  expect(event!.summary).toBe('Bakery van: Plug dry?');
  expect(event!.description).toBe('Job: Fan dead');
});

test('the day is the same in whatever zone the machine stands', () => {
  const script = `
    import { followUpCalendar } from './src/features/jobs/followUpCalendar';
    process.stdout.write(followUpCalendar([${JSON.stringify(item({}))}], new Date(${MADE.getTime()})));`;
  for (const zone of ['UTC', 'Europe/Berlin', 'Pacific/Auckland', 'America/Los_Angeles']) {
    const text = execFileSync('node_modules/.bin/tsx', ['-e', script], {
      encoding: 'utf8',
      env: { ...process.env, TZ: zone },
    });
    const [event] = eventsOf(text);
    expect([zone, event!.startDate.toString(), event!.endDate.toString()]).toEqual([
      zone,
      '2026-12-24',
      '2026-12-25',
    ]);
  }
});

test('whatever words and days: as many events as there are days, each with its words and its day', () => {
  const day = fc
    .date({ min: new Date('2000-01-01'), max: new Date('2099-12-31'), noInvalidDate: true })
    .map((date) => date.toISOString().slice(0, 10));
  const words = fc
    .string({ minLength: 1, maxLength: 120, unit: fc.constantFrom(...'abc äß,;:\\"é☂\nxyz'.split('')) })
    .map((text) => text.trim() || 'x');
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.record({ id: fc.uuid(), due: fc.option(day), words }), { selector: ({ id }) => id }),
      (rows) => {
        const items = rows.map((row) => item(row));
        const events = eventsOf(followUpCalendar(items, MADE));
        const dated = items.filter(({ due }) => due !== null);
        expect(events.map((one) => one.uid)).toEqual(dated.map(({ id }) => `${id}@every-trace`));
        for (const [index, event] of events.entries()) {
          expect(event.startDate.toString()).toBe(dated[index]!.due);
          expect(event.summary).toBe(`Bakery van: ${dated[index]!.words}`);
        }
      },
    ),
    { numRuns: 200 },
  );
});
