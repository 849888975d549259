import type { VehicleRecord } from '../format';
import { changedMeanwhile, type Known, vehicleConflicts } from '.';

const KNOWN: Known = {
  odometers: [
    { km: 148_210, day: '2026-11-23' },
    { km: 140_000, day: '2026-03-01' },
  ],
  circuits: [
    { name: 'Cabinet', nominalVolts: 12 },
    { name: 'Hatch', nominalVolts: 12 },
  ],
  plates: [{ name: 'Tipper', plate: 'MB 12 HNY' }],
};
const TODAY = '2026-11-29';
const of = (more: Partial<Parameters<typeof vehicleConflicts>[0]>) =>
  vehicleConflicts({ odometerKm: null, nominalVolts: null, plate: '', year: null, ...more }, KNOWN, TODAY);

test('kilometres that go back, or leap, are said with what they contradict', () => {
  expect(of({ odometerKm: 148_300 })).toEqual([]);
  expect(of({ odometerKm: 148_210 })).toEqual([]);
  expect(of({ odometerKm: 14_830 })).toEqual([
    expect.stringContaining('less than the 148210 km read on 2026-11-23'),
  ]);
  // Six days at 2,000 km: 12,000 km are the most.
  expect(of({ odometerKm: 160_210 })).toEqual([]);
  expect(of({ odometerKm: 160_211 })).toEqual([expect.stringContaining('6 days ago')]);
});

test('another voltage than the circuits are drawn for, the plate of another, a year to come', () => {
  expect(of({ nominalVolts: 12 })).toEqual([]);
  expect(of({ nominalVolts: 24 })).toEqual(['24 V: 2 circuits are drawn for 12 V (Cabinet, Hatch).']);
  expect(of({ plate: 'mb12-hny' })).toEqual([expect.stringContaining('that of Tipper')]);
  expect(of({ plate: 'MB 13 HNY' })).toEqual([]);
  expect(of({ year: 2027 })).toEqual([]);
  expect(of({ year: 2028 })).toHaveLength(1);
});

test('what two people changed at once is named with both values; what only one changed is not', () => {
  const was: VehicleRecord = {
    name: 'Van',
    make: '',
    model: '',
    year: null,
    plate: 'A 1',
    nominalVolts: 12,
    odometerKm: 10,
    notes: '',
    otherNames: '',
  };
  const mine = { ...was, name: 'Blue van', odometerKm: 20 };
  expect(changedMeanwhile(was, mine, was)).toEqual([]);
  expect(changedMeanwhile(was, mine, { ...was, plate: 'B 2' })).toEqual([]);
  expect(changedMeanwhile(was, mine, { ...was, odometerKm: 20 })).toEqual([]);
  expect(changedMeanwhile(was, mine, { ...was, odometerKm: 30 })).toEqual([
    'odometer: somebody saved “30” meanwhile, you wrote “20”',
  ]);
});
