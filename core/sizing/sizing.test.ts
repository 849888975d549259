/** Every sum against values worked out by hand, and the laws that hold whatever the numbers are. */
import { gaugeMm2, gaugeOhms, STANDARD_MM2 } from '../limits';
import { SUMS, sumText } from '.';
import { figure } from './fields';
import { lastsHours, usableAmpHours } from './kinds/batteryTime';
import { cutOffFor } from './kinds/cutOff';
import { drainOf, readDraw } from './kinds/drain';
import { dropAlong, type Piece, readPiece } from './kinds/drop';
import { fuseFor } from './kinds/fuse';
import { headroom } from './kinds/headroom';
import { packOf } from './kinds/pack';
import { fromTwo } from './kinds/power';
import { runDropVolts, type WireAsked, wireSize } from './kinds/wire';

const sum = (id: string) => SUMS.find((one) => one.id === id)!;
const worked = (id: string, typed: Readonly<Record<string, string>>) => {
  const { result, problems, missing } = sum(id).work(typed);
  if (!result) throw new Error(JSON.stringify({ problems, missing }));
  return Object.fromEntries(result.answers.map((one) => [one.id, one.words]));
};
const asked = (over: Partial<WireAsked> = {}): WireAsked => ({
  amps: 10,
  systemVolts: 12,
  oneWayMetres: 3,
  returnBy: 'wire',
  allowed: { percent: 3 },
  ...over,
});

describe('wire size, by the milliohms a metre of ISO 6722 wire and the ampacity of thin wall in free air', () => {
  test.each([
    // 48 A × 6.2 m: 0.4 V ÷ 297.6 Am = 1.344 mΩ/m: 16 mm² (1.16); heat 48 ≤ 50 A: 6; fuse 60 A: 10 (70 A).
    [asked({ amps: 48, oneWayMetres: 3.1, allowed: { volts: 0.4 } }), [16, 6, 10, 16, 'drop']],
    // 10 A × 6 m, 0.36 V: 6 mΩ/m: 4 mm² (4.71); heat 0.5 (11 A); fuse 15 A (12.5): 1 (16.5).
    [asked(), [4, 0.5, 1, 4, 'drop']],
    // 1.75 A × 20 m, 0.36 V: 10.3 mΩ/m: 2.5 mm² (7.6); heat 0.35; fuse 3 A: 0.35.
    [asked({ amps: 1.75, oneWayMetres: 10 }), [2.5, 0.35, 0.35, 2.5, 'drop']],
    // 20 A × 1 m by the body, 10 % = 1.2 V: 60 mΩ/m: 0.35 (52); heat 1.5 (21); fuse 25 A: 2.5 (29).
    [
      asked({ amps: 20, oneWayMetres: 1, returnBy: 'body', allowed: { percent: 10 } }),
      [0.35, 1.5, 2.5, 2.5, 'fuse'],
    ],
    // 40 A × 6.4 m, 0.36 V: 1.406 mΩ/m: 16; at 40 A for good heat 6 (50); fuse 50 A (80 %): 6 (50).
    [asked({ amps: 40, oneWayMetres: 3.2 }), [16, 6, 6, 16, 'drop']],
    // Bundled 30 A on 24 V, 1 m each way, 10 %: 2.4 V ÷ 60 = 40 mΩ/m: 0.5 (37.1); 30/0.7 = 42.9: 6; fuse 50 A (70 %): 71.4: 16.
    [
      asked({ amps: 30, systemVolts: 24, oneWayMetres: 1, allowed: { percent: 10 }, bundled: true }),
      [0.5, 6, 16, 16, 'fuse'],
    ],
    // 400 A × 4 m, 0.5 V: 0.3125 mΩ/m: thicker than 50 mm² (0.368).
    [asked({ amps: 400, oneWayMetres: 2, allowed: { volts: 0.5 } }), [null, null, null, null, 'drop']],
  ] as const)('%j', (one, [byDrop, byHeat, byFuse, mm2, governs]) => {
    const size = wireSize(one);
    expect([size.byDropMm2, size.byHeatMm2, size.byFuseMm2, size.sizeMm2, size.governs]).toEqual([
      byDrop,
      byHeat,
      byFuse,
      mm2,
      governs,
    ]);
  });
  test('ideal copper is 0.0172 × metres × ampere ÷ volts', () => {
    expect(wireSize(asked({ amps: 48, oneWayMetres: 3.1, allowed: { volts: 0.4 } })).idealMm2).toBeCloseTo(
      12.8,
      1,
    );
    expect(wireSize(asked()).idealMm2).toBeCloseTo(2.867, 3);
  });
  test('a short time needs less for the heat, and nothing less for the drop', () => {
    // 40 A for 20 s in 600 s on 2.5 mm²: (16 A/mm²)² × 0.0172 ÷ 3.45 × 20 × 0.967 = 24.7 K, and 3.5 K of the mean: 58 °C.
    const short = wireSize(
      asked({ amps: 40, oneWayMetres: 3.2, duty: { onSeconds: 20, everySeconds: 600 } }),
    );
    expect([short.byDropMm2, short.byHeatMm2, short.fuseAmps]).toEqual([16, 2.5, 40]);
    // On for nearly all the time is on for good.
    const long = wireSize(asked({ amps: 40, duty: { onSeconds: 3600, everySeconds: 3601 } }));
    expect(long.byHeatMm2).toBe(wireSize(asked({ amps: 40 })).byHeatMm2);
  });
  test('warmth around it takes from what it carries: nothing is left at 85 °C', () => {
    // √((85 − 60) ÷ 55) = 0.674: 10 A needs 14.8 A of the table: 1 mm².
    expect(wireSize(asked({ ambientCelsius: 60 })).byHeatMm2).toBe(1);
    expect(wireSize(asked({ ambientCelsius: 84.9 })).byHeatMm2).toBe(null);
  });
  test('gauges by their definition, and their ohms by the table of ASTM B258', () => {
    expect([20, 14, 10, 4].map((gauge) => Number(gaugeMm2(gauge).toFixed(2)))).toEqual([
      0.52, 2.08, 5.26, 21.15,
    ]);
    // Solid copper of that cross-section, 17.24 ohm mm²/km, is the table within two in a hundred.
    for (const gauge of [20, 18, 16, 14, 12, 10, 8, 6, 4]) {
      expect(gaugeOhms(gauge)! / (0.01724 / gaugeMm2(gauge))).toBeCloseTo(1, 1);
    }
    expect(wireSize(asked({ amps: 48, oneWayMetres: 3.1, allowed: { volts: 0.4 } })).gauge).toBe(4);
    // 6 mΩ/m allowed: 5.21 and a tenth of strands is 5.73.
    expect(wireSize(asked()).gauge).toBe(12);
  });
  test('longer, heavier, less allowed, hotter: never thinner; and what it loses is within what is allowed', () => {
    const grows = (make: (k: number) => WireAsked, values: readonly number[]) => {
      const sizes = values.map((k) => wireSize(make(k)).sizeMm2 ?? 999);
      expect([...sizes].sort((x, y) => x - y)).toEqual(sizes);
    };
    for (const amps of [0.2, 1, 4, 11, 30, 70]) {
      grows((k) => asked({ amps, oneWayMetres: k }), [0.1, 0.5, 1, 3, 7, 20, 90]);
      grows((k) => asked({ amps, allowed: { volts: 1 / k } }), [0.5, 1, 3, 9, 30]);
      grows((k) => asked({ amps, ambientCelsius: k }), [-20, 30, 50, 70]);
      grows((k) => asked({ amps, duty: { onSeconds: k, everySeconds: 900 } }), [1, 10, 60, 300, 800]);
      const size = wireSize(asked({ amps }));
      if (size.sizeMm2 !== null) expect(size.dropVolts!).toBeLessThanOrEqual(size.allowedVolts);
    }
    grows((k) => asked({ amps: k }), [0.1, 1, 5, 10, 20, 50, 100]);
    for (const mm2 of STANDARD_MM2) {
      expect(runDropVolts({ amps: 6 }, 4, mm2)).toBeCloseTo(2 * runDropVolts({ amps: 3 }, 4, mm2), 12);
      expect(runDropVolts({ amps: 6 }, 4, mm2)).toBeCloseTo(4 * runDropVolts({ amps: 6 }, 1, mm2), 12);
    }
  });
});

describe('fuse rating, by 80 % for good (70 % hot) and the opening bands of ISO 8820-3', () => {
  const of = (over: Partial<Parameters<typeof fuseFor>[0]>) =>
    fuseFor({
      runningAmps: 5,
      startAmps: null,
      startSeconds: null,
      wireMm2: null,
      family: 'regular',
      hot: false,
      ...over,
    }).chosen?.ratingAmps ?? null;
  test.each([
    [{}, 7.5], // 5 ÷ 0.8 = 6.25
    [{ hot: true }, 7.5], // 5 ÷ 0.7 = 7.14
    [{ runningAmps: 6 }, 7.5], // 7.5 exactly
    [{ runningAmps: 6, hot: true }, 10], // 8.57
    [{ runningAmps: 12.1 }, 20], // 15.1
    [{ startAmps: 20, startSeconds: 0.5 }, 15], // 2.7 × 7.5 and 2 × 10 may open within half a second, 1.33 × 15 not before 0.75 s
    [{ startAmps: 20, startSeconds: 0.5, wireMm2: 0.75 }, null], // 14 A carried: 15 is above
    [{ runningAmps: 15, wireMm2: 1.5 }, 20], // 18.75; the wire carries 21
    [{ runningAmps: 17, wireMm2: 1.5 }, null], // 21.25: 25 is above 21
    [{ runningAmps: 30, family: 'maxi' }, 40], // 37.5
    [{ runningAmps: 40, family: 'regular' }, null], // 50 is no regular blade
  ] as const)('%j: %s', (over, rating) => expect(of(over)).toBe(rating));
  test('common fuses end at 32 V', () => {
    expect(sum('fuse').work({ load: '5 A', volts: '48' }).problems.volts).toContain('32 V');
  });
  test('without a band nothing is said of its start, and it is told', () => {
    const typed = { load: '5 A', start: '20', seconds: '0.5', family: 'mini' };
    expect(worked('fuse', typed).rating).toBe('7.5 A');
    expect(sum('fuse').work(typed).result!.cautions.join()).toContain('maker’s curve');
  });
});

describe('drop piece by piece', () => {
  const lost = (lines: readonly string[], amps: number) =>
    dropAlong(
      lines.map((line) => {
        const read = readPiece(line);
        if (!read.ok) throw new Error(read.message);
        return read.value;
      }),
      amps,
      12,
    );
  test.each([
    [['3.1 m 16 mm²', '3.1 m 16 mm²'], 48, 0.3452], // 6.2 × 1.16 mΩ × 48
    [['fuse 20 A'], 10, 0.033],
    [['2 m 1.5', 'plug', 'switch'], 10, 0.254 + 0.03 + 0.1],
    [['earth 0.15 V'], 99, 0.15],
    [['strap 3 mΩ', '50 cm 2,5 mm²'], 20, 0.06 + 0.076],
    [['2 m awg 10'], 10, 0.0718], // 5.26 mm² between 4.71 and 3.14 mΩ/m: 3.59 log-log
  ] as const)('%j at %s A: %s V', (lines, amps, volts) => {
    expect(lost(lines, amps).totalVolts).toBeCloseTo(volts, 3);
  });
  test('pieces add up, twice the current loses twice', () => {
    const pieces = ['4 m 1 mm²', 'fuse 10 A', 'plug'].map(
      (line) => (readPiece(line) as { value: Piece }).value,
    );
    const all = dropAlong(pieces, 6, 12);
    expect(all.pieces.reduce((total, one) => total + one.volts, 0)).toBeCloseTo(all.totalVolts, 12);
    expect(dropAlong(pieces, 12, 12).totalVolts).toBeCloseTo(2 * all.totalVolts, 12);
    expect(all.pieces.map((one) => one.tooMuch)).toEqual([true, false, false]); // 4 m × 18.5 × 6 = 0.44 V
  });
  test.each(['hello', '3 m', 'fuse', 'fuse 0 A', '3 m 1,200 mm²'])('“%s” is no piece', (line) => {
    expect(readPiece(line).ok).toBe(false);
  });
});

test.each([
  // Millivolts, rating, ampere by the cold milliohms.
  ['0.76', '10', 'about 0.1 A'],
  ['4', '20', 'about 1.21 A'],
  ['2.35', '15', 'about 0.5 A'],
  ['15.5', '3', 'about 0.5 A'],
  ['0.1', '30', 'about 50 mA'],
  ['0.05', '30', 'cannot be said'],
  ['0', '10', 'cannot be said'],
  ['4000', '10', 'cannot be said'],
])('%s mV across %s A: %s', (millivolts, rating, words) => {
  expect(worked('fuse-drop', { millivolts, rating }).amps).toBe(words);
});
test('no current is read from a family without a table', () => {
  expect(worked('fuse-drop', { millivolts: '5', rating: '10', family: 'maxi' }).amps).toBe('cannot be said');
});

describe('power, current, ohms', () => {
  const none = { volts: null, amps: null, watts: null, ohms: null };
  test.each([
    [{ volts: 12, watts: 96 }, [12, 8, 96, 1.5]],
    [{ volts: 12, amps: 25 }, [12, 25, 300, 0.48]],
    [{ volts: 24, ohms: 6 }, [24, 4, 96, 6]],
    [{ amps: 5, watts: 60 }, [12, 5, 60, 2.4]],
    [{ amps: 2, ohms: 3 }, [6, 2, 12, 3]],
    [{ watts: 48, ohms: 3 }, [12, 4, 48, 3]],
  ])('%j', (known, [volts, amps, watts, ohms]) => {
    expect(fromTwo({ ...none, ...known })).toEqual({ volts, amps, watts, ohms });
  });
  test('whichever two are given, the other two lead back to them', () => {
    for (const volts of [0.5, 12, 24]) {
      for (const amps of [0.01, 1, 80]) {
        const four = fromTwo({ ...none, volts, amps })!;
        const keys = ['volts', 'amps', 'watts', 'ohms'] as const;
        for (const one of keys) {
          for (const other of keys) {
            if (one === other) continue;
            const again = fromTwo({ ...none, [one]: four[one], [other]: four[other] })!;
            for (const key of keys) expect(again[key] / four[key]).toBeCloseTo(1, 9);
          }
        }
      }
    }
  });
  test('what does not fit together is refused, and one alone too', () => {
    expect(sum('power').work({ volts: '12', watts: '96', amps: '9' }).problems.watts).toContain('108 W');
    expect(sum('power').work({ volts: '12' }).problems.amps).toContain('Any two');
  });
  test('a filament and a held motor are told apart from what runs', () => {
    expect(worked('power', { volts: '12', watts: '60', what: 'lamp' }).cold).toContain('0.24 Ω'); // 2.4 ÷ 10
    expect(worked('power', { volts: '12', amps: '4', what: 'motor' }).start).toContain('18 A');
  });
});

describe('battery time, drain, cut-off', () => {
  test.each([
    [30, 0.25, 120],
    [80, 0.3, 266.667],
    [14, 0.1, 140],
    [50, 5, 10],
    [0, 1, 0],
  ])('%s Ah at %s A last %s h', (usable, draw, hours) =>
    expect(lastsHours(usable, draw)).toBeCloseTo(hours, 2),
  );
  test.each([
    [{ capacityAh: 70, health: 0.8, chargeNow: 0.75, chargeLeft: 0.5 }, 14],
    [{ capacityAh: 100, health: 1, chargeNow: 1, chargeLeft: 0.2 }, 80],
    [{ capacityAh: 60, health: 0.5, chargeNow: 1, chargeLeft: 0.5 }, 15],
    [{ capacityAh: 60, health: 1, chargeNow: 0.4, chargeLeft: 0.5 }, 0],
    [{ capacityAh: 44, health: 0.9, chargeNow: 0.9, chargeLeft: 0.5 }, 15.84],
  ])('%j: %s Ah usable', (one, usable) => expect(usableAmpHours(one)).toBeCloseTo(usable, 9));
  test('two weeks at the quay on 80 Ah at 0.3 A: eleven days, not fourteen', () => {
    const answers = worked('battery', { usable: '80', draw: '0.3', standing: '2 weeks' });
    expect(answers).toMatchObject({
      hours: '267 h, 11.1 days',
      outlasts: 'it does not last',
      may: '0.238 A',
    });
  });
  test('volts at rest tell the charge of lead, not that of lithium', () => {
    expect(worked('battery', { capacity: '70', rest: '12.45', draw: '0.1' }).usable).toBe('14 Ah');
    expect(worked('battery', { capacity: '70', rest: '24.9', draw: '0.1' }).usable).toBe('14 Ah');
    expect(worked('battery', { capacity: '70', rest: '12.6', kind: 'agm', draw: '0.1' }).usable).toBe(
      '14 Ah',
    );
    expect(
      sum('battery').work({ capacity: '70', rest: '13.3', kind: 'lithium', draw: '1' }).problems.charge,
    ).toContain('lithium');
  });
  test('the largest draw comes first, shares make one, and twice the list draws twice', () => {
    const draws = ['Tracker 8 mA', 'Fridge 4 A 30 %', '3 x 5 mA sensors', '6 W lamp', 'radio: 12,5mA'].map(
      (line) => {
        const read = readDraw(line);
        if (!read.ok) throw new Error(read.message);
        return read.value;
      },
    );
    const { draws: sorted, totalAmps } = drainOf(draws, 12);
    // 0.008 + 1.2 + 0.015 + 0.5 + 0.0125
    expect(totalAmps).toBeCloseTo(1.7355, 9);
    expect(sorted.map(({ name }) => name)).toEqual(['Fridge', 'lamp', 'sensors', 'radio', 'Tracker']);
    expect(sorted.reduce((total, one) => total + one.share, 0)).toBeCloseTo(1, 12);
    expect(drainOf([...draws, ...draws], 12).totalAmps).toBeCloseTo(2 * totalAmps, 12);
  });
  test.each([
    // Rest volts at the reserve less draw × 6 mΩ, kept within 11.8 to 12.2 V a block.
    [
      ['flooded', 0.5, 5, 1],
      [12.2, 12.8, 60],
    ],
    [
      ['flooded', 0.25, 5, 1],
      [12.03, 12.8, 60],
    ],
    [
      ['flooded', 0, 20, 1],
      [11.8, 12.8, 180],
    ],
    [
      ['agm', 0.25, 5, 2],
      [24.36, 25.6, 60],
    ],
    [
      ['lithium', 0.2, 5, 1],
      [12, 12.8, 60],
    ],
  ] as const)('cut-off for %j: %j', ([kind, reserve, draw, count], [off, on, delay]) => {
    const set = cutOffFor(kind, reserve, draw, count);
    expect([set.disconnectVolts, set.reconnectVolts, set.delaySeconds]).toEqual([off, on, delay]);
  });
});

describe('headroom', () => {
  const part = (name: string, ratingAmps: number | null, presentAmps: number | null, share = 1) => ({
    name,
    ratingAmps,
    presentAmps,
    share,
  });
  test.each([
    // 0.8 × 60 − 27 = 21; 0.8 × 50 − 27 = 13.
    [[part('fuse', 60, 27), part('wire', 50, 27)], 5, 0.8, 'room', 13],
    [[part('fuse', 60, 27), part('wire', 50, 27)], 13, 0.8, 'room', 13],
    [[part('fuse', 60, 27), part('wire', 50, 27)], 13.1, 0.8, 'none', 13],
    [[part('fuse', 60, 27), part('wire', 50, 27)], 9, 0.7, 'none', 8],
    // Half of it goes another way: twice as much may be added.
    [[part('bus', 40, 12, 0.5)], 35, 0.8, 'room', 40],
    [[part('fuse', 60, 27), part('switch', null, 27)], 5, 0.8, 'incomplete', 21],
    [[part('fuse', 60, null)], 5, 0.8, 'incomplete', null],
    // Whatever flows already: more than the rating allows is none.
    [[part('fuse', 10, null)], 9, 0.8, 'none', null],
    [[], 5, 0.8, 'incomplete', null],
  ] as const)('%j + %s A at %s: %s', (parts, added, factor, verdict, room) => {
    const found = headroom(parts, added, factor);
    expect(found.verdict).toBe(verdict);
    if (room === null) expect(found.roomAmps).toBe(null);
    else expect(found.roomAmps).toBeCloseTo(room, 9);
  });
  test('never a pass where something is not declared', () => {
    expect(headroom([part('fuse', 60, 1)], 1, 0.8, true).verdict).toBe('incomplete');
    expect(worked('headroom', { load: '5 A', parts: 'fuse 60 A', on: '' }).room).toBe('not to be said');
    expect(worked('headroom', { load: '5 A', parts: 'fuse 60 A', on: 'fan 5 A; radio ?' }).room).toBe(
      'not to be said',
    );
    expect(worked('headroom', { load: '5 A', parts: 'fuse 60 A', on: 'nothing' }).room).toBe('48 A');
  });
});

test.each([
  [4, 12, [], 48, [55.2, 58.8], null],
  [2, 12, [12.6, 12.65], 24, [27.6, 29.4], null],
  [4, 12, [12.6, 12.5, 11.9, 12.6], 48, [55.2, 58.8], 3],
  [6, 6, [6.3, 6.3, 6.3, 6.3, 6.3, 6.5], 36, [41.4, 44.1], 6],
  [1, 12, [12.6], 12, [13.8, 14.7], null],
] as const)('a pack of %s × %s V', (count, each, readings, nominal, [low, high], odd) => {
  const pack = packOf(count, each, readings);
  expect(pack.nominalVolts).toBe(nominal);
  expect(pack.chargingVolts[0]).toBeCloseTo(low, 6);
  expect(pack.chargingVolts[1]).toBeCloseTo(high, 6);
  expect(pack.odd).toBe(odd);
});

describe('whatever is typed', () => {
  const BAD = [
    '',
    '0',
    '-5',
    '1e30',
    '1,200',
    'NaN',
    'Infinity',
    '∞',
    '?',
    'x'.repeat(500),
    '5 5',
    '999999999',
  ];
  const GOOD: Readonly<Record<string, Readonly<Record<string, string>>>> = {
    wire: { load: '10 A', metres: '3' },
    fuse: { load: '5 A' },
    drop: { amps: '10', pieces: 'plug' },
    'fuse-drop': { millivolts: '1', rating: '10' },
    power: { volts: '12', amps: '5' },
    battery: { usable: '30', draw: '0.25' },
    drain: { draws: 'Clock 8 mA' },
    'cut-off': { draw: '5' },
    headroom: { load: '5', parts: 'fuse 60 A', on: 'fan 5 A' },
    pack: { count: '4' },
  };
  test.each(SUMS.map((one) => [one.id, one] as const))(
    '%s says so in words, and never a figure that is none',
    (id, one) => {
      expect(one.work(GOOD[id]!).result).not.toBeNull();
      for (const field of Object.keys(one.fields)) {
        for (const text of BAD) {
          const typed = { ...GOOD[id], [field]: text };
          const { result, problems, missing } = one.work(typed);
          if (result) {
            const said = sumText(one, { ...typed, [field]: '' }, result);
            expect(said).not.toMatch(/NaN|Infinity|undefined|null|e\+|object/);
            for (const point of result.curve?.points ?? []) {
              for (const value of Object.values(point)) expect(Number.isFinite(value)).toBe(true);
            }
          } else expect(Object.values(problems).join('').length + missing.length).toBeGreaterThan(0);
        }
      }
    },
  );
  test('a sum shows its numbers: every answer has a step or a reason', () => {
    for (const one of SUMS) {
      const { result } = one.work(GOOD[one.id]!);
      expect(result!.steps.length).toBeGreaterThan(0);
      expect(result!.answers.filter(({ main }) => main)).toHaveLength(1);
    }
  });
  test('figures have three digits', () => {
    expect([figure(0.0123456, 'A'), figure(12.3456, 'V'), figure(1234.5), figure(0)]).toEqual([
      '12.3 mA',
      '12.3 V',
      '1235',
      '0',
    ]);
  });
});
