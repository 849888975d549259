/** Rules of the trade, each once: worked out by hand or read in the standard that is named beside them. */
import { FUSE_FAMILIES, SLOT_FAMILIES } from '../format';
import { contactLoss, expectedWithin } from './drops';
import { colourOf, familySize, hasColdOhms, hasOpeningBand, isTallerOf } from './fuseFamilies';
import { liveness } from './slotReadings';

test('a contact is judged alike on every system: its ohms and its current make the loss', () => {
  expect([0.04, 0.0999].map(contactLoss)).toEqual(['good', 'good']);
  expect([0.1, 0.2].map(contactLoss)).toEqual(['watch', 'watch']);
  expect([0.21, 3].map(contactLoss)).toEqual(['worn', 'worn']);
});

test('as expected grows with the system where nothing closer is known, and with what the circuit leaves open', () => {
  expect(expectedWithin(12, 0)).toBeCloseTo(0.35);
  expect(expectedWithin(24, 0.1)).toBeCloseTo(0.7);
  expect(expectedWithin(12, 0.4)).toBeCloseTo(1);
});

test('every family has a size; blades have the colours of ISO 8820-3, relays none', () => {
  for (const family of SLOT_FAMILIES) expect(Math.min(...familySize(family))).toBeGreaterThan(0);
  expect([5, 7.5, 10, 15, 20, 25, 30].map((amps) => colourOf('mini', amps))).toEqual([
    'tan',
    'brown',
    'red',
    'blue',
    'yellow',
    'clear',
    'green',
  ]);
  expect(colourOf('relay-mini', 30)).toBeNull();
  expect(colourOf('regular', 13)).toBeNull();
});

test('an unsaid family counts as a regular blade; what is public of others is not claimed', () => {
  expect([undefined, 'regular', 'mini', 'maxi', 'unknown'].map(hasColdOhms)).toEqual([
    true,
    true,
    true,
    false,
    false,
  ]);
  expect([undefined, 'regular', 'mini'].map(hasOpeningBand)).toEqual([true, true, false]);
});

test('a mini stands higher in the hole of a low-profile one; nothing is taller than itself', () => {
  expect(isTallerOf('mini', 'low-profile-mini')).toBe(true);
  expect(isTallerOf('low-profile-mini', 'mini')).toBe(false);
  for (const family of FUSE_FAMILIES) expect(isTallerOf(family, family)).toBe(false);
});

test.each([
  [12, 9.7, 'live'],
  [12, 9.5, 'weak'],
  [12, 2.3, 'dead'],
  [24, 19.3, 'live'],
  [24, 9.6, 'weak'],
  [12, -12, 'live'],
] as const)('on %i V a point at %d V is %s', (nominal, volts, stands) => {
  expect(liveness({ volts }, nominal)).toBe(stands);
});
