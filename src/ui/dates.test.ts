import { dateWords, dayOf } from './dates';

test('a moment is shown by the workshop’s clock, a due day is the same everywhere', () => {
  const late = '2026-03-03T23:30:00.000Z';
  expect(dateWords(late, 'short', 'UTC')).toBe('3 Mar');
  expect(dateWords(late, 'short', 'Europe/Helsinki')).toBe('4 Mar');
  expect(dateWords(late, 'time', 'America/New_York')).toBe('18:30');
  for (const zone of ['UTC', 'Pacific/Auckland', 'America/Los_Angeles']) {
    expect(dateWords('2026-03-03', 'long', zone)).toBe('3 March 2026');
  }
});

test('today is the workshop’s day: what is due today is not overdue an hour before midnight', () => {
  const moment = new Date('2026-03-03T23:30:00Z');
  expect(dayOf(moment, 'UTC')).toBe('2026-03-03');
  expect(dayOf(moment, 'Europe/Berlin')).toBe('2026-03-04');
  expect(dayOf(moment, 'America/New_York')).toBe('2026-03-03');
});
