/**
 * The size of a wire: asked by the drop, by the heat and by the fuse before it; the largest of them rules. Ohms and ampacity
 * are those of `limits` (stranded maximum values after ISO 6722 at 20 °C, thin wall at 30 °C); for comparison what ideal copper
 * of 0.0172 ohm mm²/m would ask.
 */
import {
  ampacity,
  COPPER_OHM_MM2_PER_METRE,
  COPPER_PER_CELSIUS,
  deratedAmpacity,
  gaugeFor,
  HOT_RUNNING_SHARE,
  INSULATION_CELSIUS,
  RUNNING_SHARE,
  ratingsOf,
  STANDARD_MM2,
  wireOhms,
} from '../../limits';
import { formatNumber } from '../../quantity';
import type { Answer, Curve, SumResult } from '../explained';
import {
  type AllowedDrop,
  celsius,
  choice,
  drop,
  figure,
  load,
  loadAmps,
  metres,
  seconds,
  unknown,
  volts,
} from '../fields';
import { sumOf } from '../sum';

export interface WireAsked {
  readonly amps: number;
  readonly systemVolts: number;
  readonly oneWayMetres: number;
  /** The current comes back through as long a wire, or through the body. */
  readonly returnBy: 'wire' | 'body';
  readonly allowed: AllowedDrop;
  readonly bundled?: boolean;
  readonly ambientCelsius?: number;
  /** Seconds on, and the whole time from one start to the next; always on without it. */
  readonly duty?: { readonly onSeconds: number; readonly everySeconds: number } | null;
  readonly material?: 'copper' | 'tinned' | 'aluminium';
}

/** Ohms against copper, and what it carries against copper, at one size. */
const MATERIALS = {
  copper: { ohms: 1, amps: 1, words: 'copper' },
  tinned: { ohms: 1.03, amps: 0.98, words: 'tinned copper: 3 % more ohms' },
  aluminium: { ohms: 1.64, amps: 0.78, words: 'aluminium: 1.64 times the ohms, 0.78 of the current' },
} as const;

/** Heat that a cubic centimetre of copper takes for a degree, joule. */
const COPPER_JOULE_PER_CM3 = 3.45;

export interface WireSize {
  readonly allowedVolts: number;
  /** Metres of wire in which the volts are lost. */
  readonly runMetres: number;
  /** mm², of the standard sizes; null where none of them does. */
  readonly byDropMm2: number | null;
  readonly byHeatMm2: number | null;
  readonly byFuseMm2: number | null;
  /** mm² that ideal copper would need for the drop: the lower bound, no size to be bought. */
  readonly idealMm2: number;
  /** The smallest fuse rating that carries the load for good, ampere; null where it is not a blade's. */
  readonly fuseAmps: number | null;
  readonly sizeMm2: number | null;
  readonly governs: 'drop' | 'heat' | 'fuse';
  readonly gauge: number | null;
  /** At the size: volts lost, cold and at the heat of its load; watts in all of the run. */
  readonly dropVolts: number | null;
  readonly warmDropVolts: number | null;
  readonly heatWatts: number | null;
  readonly celsius: number | null;
}

const allowedVoltsOf = (allowed: AllowedDrop, systemVolts: number) =>
  'volts' in allowed ? allowed.volts : (allowed.percent / 100) * systemVolts;

/** Volts lost in a run of a size, at 20 °C. */
export function runDropVolts(
  { amps, material = 'copper' }: Pick<WireAsked, 'amps' | 'material'>,
  runMetres: number,
  sizeMm2: number,
): number {
  return amps * wireOhms(runMetres, sizeMm2) * MATERIALS[material].ohms;
}

/** Degrees that a size stands above what is around it, at the end of an on-time in the steady beat of a duty. */
function riseCelsius(asked: WireAsked, sizeMm2: number): number {
  const { amps, duty, material = 'copper', bundled = false } = asked;
  const full = deratedAmpacity(sizeMm2, { bundled }) * MATERIALS[material].amps;
  const atFull = INSULATION_CELSIUS - 30;
  if (!duty) return atFull * (amps / full) ** 2;
  const share = Math.min(1, duty.onSeconds / duty.everySeconds);
  const mean = atFull * (amps / full) ** 2 * share;
  // One on-time without any heat given away, on top of the mean; never more than if it were on for good.
  const density = amps / sizeMm2;
  const pulse =
    ((density ** 2 * COPPER_OHM_MM2_PER_METRE * MATERIALS[material].ohms) / COPPER_JOULE_PER_CM3) *
    duty.onSeconds *
    (1 - share);
  return Math.min(atFull * (amps / full) ** 2, mean + pulse);
}

/** The smallest blade or maxi rating that carries so many ampere for good. */
export function leastRating(amps: number, share: number): number | null {
  const ratings = [...new Set([...ratingsOf('regular'), ...ratingsOf('maxi')].map((one) => one.amps))];
  return ratings.sort((x, y) => x - y).find((rating) => amps <= rating * share + 1e-9) ?? null;
}

/** From so many degrees around it a fuse sits hot. */
const HOT_CELSIUS = 40;

/** Share of its rating that the fuse may carry; what is on for seconds may use all of it, it does not get warm. */
function shareOf({ duty, bundled, ambientCelsius = 30 }: WireAsked): number {
  if (duty) return 1;
  return bundled || ambientCelsius > HOT_CELSIUS ? HOT_RUNNING_SHARE : RUNNING_SHARE;
}

/**
 * @example wireSize({ amps: 48, systemVolts: 12, oneWayMetres: 3.1, returnBy: 'wire', allowed: { volts: 0.4 } }).sizeMm2 // 16
 */
export function wireSize(asked: WireAsked): WireSize {
  const { amps, systemVolts, oneWayMetres, returnBy, allowed, duty = null, material = 'copper' } = asked;
  const bundled = asked.bundled ?? false;
  const ambientCelsius = asked.ambientCelsius ?? 30;
  const runMetres = oneWayMetres * (returnBy === 'wire' ? 2 : 1);
  const allowedVolts = allowedVoltsOf(allowed, systemVolts);
  const carries = (mm2: number) =>
    deratedAmpacity(mm2, { bundled, ambientCelsius }) * MATERIALS[material].amps;
  const byDropMm2 =
    STANDARD_MM2.find((mm2) => runDropVolts(asked, runMetres, mm2) <= allowedVolts + 1e-9) ?? null;
  const byHeatMm2 =
    STANDARD_MM2.find((mm2) =>
      duty ? ambientCelsius + riseCelsius(asked, mm2) <= INSULATION_CELSIUS : carries(mm2) >= amps,
    ) ?? null;
  const fuseAmps = leastRating(amps, shareOf(asked));
  const byFuseMm2 = fuseAmps === null ? null : (STANDARD_MM2.find((mm2) => carries(mm2) >= fuseAmps) ?? null);
  const idealMm2 = (COPPER_OHM_MM2_PER_METRE * MATERIALS[material].ohms * runMetres * amps) / allowedVolts;
  const asks = [
    ['drop', byDropMm2],
    ['heat', byHeatMm2],
    ...(fuseAmps === null ? [] : [['fuse', byFuseMm2] as const]),
  ] as const;
  const none = asks.find(([, mm2]) => mm2 === null);
  const [governs, sizeMm2] = none ?? asks.reduce((most, one) => (one[1]! > most[1]! ? one : most));
  const found = sizeMm2 === null ? null : sizeMm2;
  const dropVolts = found === null ? null : runDropVolts(asked, runMetres, found);
  const hot = found === null ? null : ambientCelsius + riseCelsius(asked, found);
  return {
    allowedVolts,
    runMetres,
    byDropMm2,
    byHeatMm2,
    byFuseMm2,
    idealMm2,
    fuseAmps,
    sizeMm2: found,
    governs,
    gauge:
      found === null || byDropMm2 === null || material !== 'copper'
        ? null
        : gaugeFor(allowedVolts / (amps * runMetres), Math.max(byHeatMm2 ?? 0, byFuseMm2 ?? 0)),
    dropVolts,
    warmDropVolts: dropVolts === null ? null : dropVolts * (1 + COPPER_PER_CELSIUS * (hot! - 20)),
    heatWatts: dropVolts === null ? null : dropVolts * amps,
    celsius: hot,
  };
}

const RULES = { drop: 'the drop', heat: 'the heat', fuse: 'the fuse' } as const;
const sizeWords = (mm2: number | null) => (mm2 === null ? 'more than 50 mm²' : `${formatNumber(mm2)} mm²`);

function governWords(size: WireSize): string {
  const asks = `By the drop ${sizeWords(size.byDropMm2)}, by the heat ${sizeWords(size.byHeatMm2)}${
    size.fuseAmps === null
      ? ''
      : `, by the ${formatNumber(size.fuseAmps)} A fuse ${sizeWords(size.byFuseMm2)}`
  }`;
  return size.sizeMm2 === null
    ? `${asks}: ${RULES[size.governs]} asks for more than any size of the table. Shorten the run, raise the volts or lay two.`
    : `${asks}: ${RULES[size.governs]} rules.`;
}

function curveOf(asked: WireAsked, size: WireSize): Curve {
  const from = STANDARD_MM2.findIndex(
    (mm2) => runDropVolts(asked, size.runMetres, mm2) <= 8 * size.allowedVolts,
  );
  const sizes = STANDARD_MM2.slice(Math.max(0, from));
  return {
    title: `Volts lost by size; at most ${figure(size.allowedVolts, 'V')} are allowed.`,
    xName: 'mm²',
    steps: true,
    yName: 'V lost',
    points: sizes.map((mm2) => ({ x: mm2, y: runDropVolts(asked, size.runMetres, mm2) })),
    limits: [{ y: size.allowedVolts, words: 'allowed' }],
    marks: size.sizeMm2 === null ? [] : [{ x: size.sizeMm2, words: `${formatNumber(size.sizeMm2)} mm²` }],
  };
}

export const wire = sumOf({
  id: 'wire',
  name: 'Wire size',
  also: ['cable', 'gauge', 'awg', 'mm2', 'cross-section', 'winch'],
  says: 'Which size a wire needs for its drop, its heat and its fuse, and which of the three rules.',
  fields: {
    load: load({ name: 'It draws', typical: '48 A, 600 W, 4 x 21 W' }),
    volts: volts({ name: 'On a system of', typical: '12 V', first: '12' }),
    metres: metres({ name: 'One way', typical: '3 m from source to load' }),
    drop: drop({ name: 'May lose', typical: '3 % for lamps, electronics, pumps; else 10 %', first: '3 %' }),
    back: choice({ name: 'Back through', typical: 'a wire beside it' }, [
      { id: 'wire', name: 'a wire as long' },
      { id: 'body', name: 'the body' },
    ]),
    lies: choice({ name: 'It lies', typical: 'free in air' }, [
      { id: 'free', name: 'free' },
      { id: 'bundled', name: 'bundled or hot' },
    ]),
    ambient: celsius({ name: 'Around it', typical: '30 °C; 60 °C by an engine', first: '30' }),
    on: unknown(seconds({ name: 'On for', typical: 'empty: for good; a winch 30 s' })),
    every: unknown(seconds({ name: 'Once in', typical: 'from start to start, 10 min' })),
    material: choice({ name: 'Of', typical: 'copper' }, [
      { id: 'copper', name: 'copper' },
      { id: 'tinned', name: 'tinned copper' },
      { id: 'aluminium', name: 'aluminium' },
    ]),
  },
  work: (typed) => {
    const { amps, formula } = loadAmps(typed.load, typed.volts);
    if ((typed.on === null) !== (typed.every === null)) {
      const missing = typed.on === null ? 'on' : 'every';
      return { field: missing, message: 'Seconds on and the time from start to start belong together.' };
    }
    if (typed.on !== null && typed.every! <= typed.on) {
      return {
        field: 'every',
        message: 'From start to start takes longer than the time on; leave both empty if it is on for good.',
      };
    }
    const duty = typed.on === null ? null : { onSeconds: typed.on, everySeconds: typed.every! };
    const asked: WireAsked = {
      amps,
      systemVolts: typed.volts,
      oneWayMetres: typed.metres,
      returnBy: typed.back,
      allowed: typed.drop,
      bundled: typed.lies === 'bundled',
      ambientCelsius: typed.ambient,
      duty,
      material: typed.material,
    };
    if (allowedVoltsOf(typed.drop, typed.volts) >= typed.volts) {
      return { field: 'drop', message: 'More than the system has cannot be lost.' };
    }
    const size = wireSize(asked);
    return explain(asked, size, formula);
  },
});

function explain(asked: WireAsked, size: WireSize, loadFormula: string): SumResult {
  const { amps, systemVolts } = asked;
  const perMetre =
    size.sizeMm2 === null ? null : wireOhms(1, size.sizeMm2) * MATERIALS[asked.material ?? 'copper'].ohms;
  const tooWarm = size.warmDropVolts !== null && size.warmDropVolts > size.allowedVolts;
  const alone = asked.returnBy === 'wire' ? wireSize({ ...asked, returnBy: 'body' }).byDropMm2 : null;
  const answers: Answer[] = [
    {
      id: 'size',
      name: 'Size',
      words: size.sizeMm2 === null ? 'none of the table' : sizeWords(size.sizeMm2),
      main: true,
      ...(size.sizeMm2 === null ? { stands: 'bad' as const } : {}),
    },
    {
      id: 'gauge',
      name: 'Gauge',
      words: size.gauge === null ? 'none of AWG 20 to 4' : `AWG ${size.gauge}`,
    },
    ...(size.sizeMm2 === null
      ? []
      : [
          {
            id: 'volts',
            name: 'At the load',
            words: `${figure(systemVolts - size.dropVolts!, 'V')} (${figure(size.dropVolts!, 'V')} lost, ${figure((100 * size.dropVolts!) / systemVolts)} %)`,
          },
          {
            id: 'heat',
            name: 'Heat in the wire',
            words: `${figure(size.heatWatts!, 'W')}, about ${Math.round(size.celsius!)} °C`,
          },
        ]),
  ];
  return {
    answers,
    governs: governWords(size),
    steps: [
      { name: 'Current', formula: loadFormula },
      {
        name: 'Allowed',
        formula:
          'volts' in asked.allowed
            ? `${figure(size.allowedVolts, 'V')} = ${figure((100 * size.allowedVolts) / systemVolts)} % of ${formatNumber(systemVolts)} V`
            : `${formatNumber(asked.allowed.percent)} % of ${formatNumber(systemVolts)} V = ${figure(size.allowedVolts, 'V')}`,
      },
      ...(size.byDropMm2 === null
        ? []
        : [
            {
              name: 'By the drop',
              formula: `${formatNumber(amps)} A × ${formatNumber(size.runMetres)} m × ${figure(wireOhms(1, size.byDropMm2) * 1000 * MATERIALS[asked.material ?? 'copper'].ohms)} mΩ/m = ${figure(runDropVolts(asked, size.runMetres, size.byDropMm2), 'V')} with ${formatNumber(size.byDropMm2)} mm²`,
              source: 'stranded maximum ohms at 20 °C, ISO 6722',
            },
          ]),
      {
        name: 'Ideal copper',
        formula: `0.0172 × ${formatNumber(size.runMetres)} m × ${formatNumber(amps)} A ÷ ${figure(size.allowedVolts, 'V')} = ${figure(size.idealMm2)} mm², the least that physics allows`,
      },
      ...(size.byHeatMm2 === null
        ? []
        : [
            {
              name: 'By the heat',
              formula: asked.duty
                ? `${formatNumber(asked.duty.onSeconds)} s in ${formatNumber(asked.duty.everySeconds)} s: ${formatNumber(size.byHeatMm2)} mm² comes to ${Math.round((asked.ambientCelsius ?? 30) + riseCelsius(asked, size.byHeatMm2))} °C of ${INSULATION_CELSIUS}`
                : `${formatNumber(size.byHeatMm2)} mm² carries ${figure(deratedAmpacity(size.byHeatMm2, { bundled: asked.bundled ?? false, ambientCelsius: asked.ambientCelsius ?? 30 }) * MATERIALS[asked.material ?? 'copper'].amps, 'A')} here (${formatNumber(ampacity(size.byHeatMm2))} A free at 30 °C)`,
              source: 'thin wall, 85 °C insulation, free air; bundled or hot × 0.7',
            },
          ]),
      ...(size.fuseAmps === null
        ? []
        : [
            {
              name: 'By the fuse',
              formula: `${formatNumber(amps)} A needs ${formatNumber(size.fuseAmps)} A ${asked.duty ? 'for so short a time' : `at no more than ${Math.round(100 * shareOf(asked))} %`}; the wire carries at least that`,
              source: 'a fuse protects the wire behind it',
            },
          ]),
      ...(perMetre === null
        ? []
        : [
            {
              name: 'Heat',
              formula: `${figure(amps, 'A')}² × ${figure(perMetre * 1000 * size.runMetres)} mΩ = ${figure(size.heatWatts!, 'W')}`,
            },
          ]),
    ],
    assumes: [
      asked.returnBy === 'wire'
        ? `There and back: ${formatNumber(size.runMetres)} m.${alone === null ? '' : ` Counting one cable alone the drop would ask for ${sizeWords(alone)}.`}`
        : 'The body brings the current back without loss; its own joints and earth points lose too.',
      `Made of ${MATERIALS[asked.material ?? 'copper'].words}.`,
      'Ohms at 20 °C.',
    ],
    leavesOut: [
      'Joints, contacts, fuse and plugs on the way: use the drop sum for all of it.',
      'Chafing, vibration, and what the maker prescribes: that comes first.',
    ],
    cautions: [
      ...(tooWarm
        ? [
            `At its working heat the same wire loses ${figure(size.warmDropVolts!, 'V')}, more than is allowed: take the next size if that matters.`,
          ]
        : []),
      ...(size.gauge === null
        ? []
        : ['Some vehicle gauges are thinner than their number: compare the copper.']),
      ...(asked.duty
        ? ['For so short a time only: a switch that springs back, and somebody who watches.']
        : []),
    ],
    curve: curveOf(asked, size),
    label: `${sizeWords(size.sizeMm2)} for ${figure(amps, 'A')} over ${formatNumber(asked.oneWayMetres)} m, ${figure(size.allowedVolts, 'V')} allowed`,
  };
}
