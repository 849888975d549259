/**
 * The fuse for a load and its wire: the smallest rating of its family that carries the running current for good, does not open
 * at the start, and is no more than what the thinnest wire behind it carries. Shares of the rating after ISO 8820-3.
 */
import { openingTime, openingTimeWords } from '../../faults';
import type { FUSE_FAMILIES } from '../../format';
import {
  BLADE_VOLTS,
  colourOf,
  deratedAmpacity,
  HOT_RUNNING_SHARE,
  hasOpeningBand,
  RUNNING_SHARE,
  ratingsOf,
  terminalAmps,
} from '../../limits';
import { formatNumber } from '../../quantity';
import type { Answer, Curve, SumResult } from '../explained';
import {
  amps,
  choice,
  FAMILY_OPTIONS,
  figure,
  load,
  loadAmps,
  seconds,
  size,
  unknown,
  volts,
} from '../fields';
import { sumOf } from '../sum';

type FuseFamily = (typeof FUSE_FAMILIES)[number];

export interface FuseAsked {
  readonly runningAmps: number;
  /** Null where nobody knows. */
  readonly startAmps: number | null;
  readonly startSeconds: number | null;
  readonly wireMm2: number | null;
  readonly family: FuseFamily;
  readonly hot: boolean;
  /** On for seconds only: it may use all of the rating. */
  readonly short?: boolean;
}

interface FuseJudged {
  readonly ratingAmps: number;
  readonly carriesRunning: boolean;
  /** It may open while the load starts; null where that cannot be said. */
  readonly mayOpenAtStart: boolean | null;
  /** Above what the wire carries; null where the wire is not known. */
  readonly aboveWire: boolean | null;
}

export interface FuseChosen {
  readonly judged: readonly FuseJudged[];
  readonly wireCarriesAmps: number | null;
  readonly chosen: FuseJudged | null;
}

/** Every rating of the family judged, and the smallest that nothing speaks against; null where none is. */
export function fuseFor(asked: FuseAsked): FuseChosen {
  const share = asked.short ? 1 : asked.hot ? HOT_RUNNING_SHARE : RUNNING_SHARE;
  const wireCarriesAmps =
    asked.wireMm2 === null ? null : deratedAmpacity(asked.wireMm2, { bundled: asked.hot });
  const most = terminalAmps(asked.family) ?? Number.POSITIVE_INFINITY;
  const ratings = ratingsOf(asked.family).filter(({ amps: rating }) => rating <= most);
  const judged = ratings.map(({ amps: ratingAmps }): FuseJudged => {
    const opens = asked.startAmps === null ? null : openingTime(asked.startAmps / ratingAmps, asked.family);
    return {
      ratingAmps,
      carriesRunning: asked.runningAmps <= share * ratingAmps + 1e-9,
      mayOpenAtStart:
        asked.startAmps === null
          ? null
          : asked.startAmps <= ratingAmps
            ? false
            : asked.startSeconds === null || !hasOpeningBand(asked.family)
              ? null
              : opens !== null && opens.fromSeconds < asked.startSeconds,
      aboveWire: wireCarriesAmps === null ? null : ratingAmps > wireCarriesAmps + 1e-9,
    };
  });
  const chosen = judged.find(
    (one) => one.carriesRunning && one.mayOpenAtStart !== true && one.aboveWire !== true,
  );
  return { judged, wireCarriesAmps, chosen: chosen ?? null };
}

/** Why a rating is not taken; null where nothing speaks against it. */
function whyNot(one: FuseJudged, asked: FuseAsked, wireCarriesAmps: number | null): string | null {
  const share = (100 * asked.runningAmps) / one.ratingAmps;
  if (!one.carriesRunning) {
    return `${formatNumber(one.ratingAmps)} A: ${figure(share)} % of it all the time, more than ${(asked.hot ? HOT_RUNNING_SHARE : RUNNING_SHARE) * 100} %`;
  }
  if (one.mayOpenAtStart) {
    const ratio = asked.startAmps! / one.ratingAmps;
    return `${formatNumber(one.ratingAmps)} A: may open while it starts (${figure(ratio)} times its rating, ${openingTimeWords(openingTime(ratio, asked.family))})`;
  }
  if (one.aboveWire) {
    return `${formatNumber(one.ratingAmps)} A: above the ${figure(wireCarriesAmps!, 'A')} that the wire carries`;
  }
  return null;
}

function curveOf(asked: FuseAsked, ratingAmps: number): Curve | null {
  if (!hasOpeningBand(asked.family)) return null;
  const ratios = [1.35, 1.6, 2, 2.5, 3, 3.5, 4.5, 6];
  const start = asked.startAmps === null ? null : asked.startAmps / ratingAmps;
  return {
    title: `How soon a ${formatNumber(ratingAmps)} A fuse opens, by current: between the two lines.`,
    xName: 'A',
    yName: 's',
    logarithmic: true,
    points: ratios.map((ratio) => {
      const band = openingTime(ratio, asked.family)!;
      return { x: ratio * ratingAmps, low: Math.max(band.fromSeconds, 0.01), high: band.toSeconds };
    }),
    limits: asked.startSeconds === null ? [] : [{ y: asked.startSeconds, words: 'start lasts' }],
    marks: start === null || start < 1.35 || start > 6 ? [] : [{ x: asked.startAmps!, words: 'start' }],
  };
}

export const fuse = sumOf({
  id: 'fuse',
  name: 'Fuse rating',
  also: ['blade', 'ampere', 'blow', 'opening time', 'breaker'],
  says: 'Which rating carries the load for good, survives its start and still protects the wire.',
  fields: {
    load: load({ name: 'It draws, running', typical: '5 A fan, 55 W lamp' }),
    volts: volts({ name: 'On a system of', typical: '12 V', first: '12' }),
    start: unknown(
      amps({ name: 'At the start', typical: 'motor 3 to 6 times, lamp 10 times; empty: not known' }),
    ),
    seconds: unknown(seconds({ name: 'The start lasts', typical: 'motor 0.5 s, lamp 50 ms' })),
    wire: unknown(size({ name: 'Thinnest wire behind it', typical: '1.5 mm²; empty: not known' })),
    family: choice({ name: 'Family', typical: 'what the slot takes', first: 'regular' }, FAMILY_OPTIONS),
    place: choice({ name: 'It sits', typical: 'in the cabin' }, [
      { id: 'cool', name: 'cool' },
      { id: 'hot', name: 'in a hot engine bay' },
    ]),
  },
  work: (typed) => {
    const { amps: runningAmps, formula } = loadAmps(typed.load, typed.volts);
    if (typed.volts > BLADE_VOLTS) {
      return {
        field: 'volts',
        message: `Common fuses are made for ${BLADE_VOLTS} V: on more they may not clear. Take what the maker gives for it.`,
      };
    }
    if (typed.start !== null && typed.start < runningAmps) {
      return { field: 'start', message: 'The start draws at least as much as it does running.' };
    }
    if (typed.seconds !== null && typed.start === null) {
      return { field: 'start', message: 'How long the start lasts says nothing without its current.' };
    }
    const asked: FuseAsked = {
      runningAmps,
      startAmps: typed.start,
      startSeconds: typed.seconds,
      wireMm2: typed.wire,
      family: typed.family,
      hot: typed.place === 'hot',
    };
    if (ratingsOf(typed.family).length === 0) {
      return {
        field: 'family',
        message: 'Ratings of this family are not known here: take the maker’s table.',
      };
    }
    return explain(asked, fuseFor(asked), formula);
  },
});

function explain(
  asked: FuseAsked,
  { chosen, judged, wireCarriesAmps }: FuseChosen,
  loadFormula: string,
): SumResult {
  const share = asked.hot ? HOT_RUNNING_SHARE : RUNNING_SHARE;
  const reasons = judged.flatMap((one) => {
    const why = whyNot(one, asked, wireCarriesAmps);
    return why === null ? [] : [{ rating: one.ratingAmps, why }];
  });
  const below = reasons.filter(({ rating }) => chosen === null || rating < chosen.ratingAmps).at(-1);
  const above = reasons.find(({ rating }) => chosen !== null && rating > chosen.ratingAmps);
  const colour = chosen && colourOf(asked.family, chosen.ratingAmps);
  const answers: Answer[] = [
    {
      id: 'rating',
      name: 'Fuse',
      words: chosen ? `${formatNumber(chosen.ratingAmps)} A` : 'none',
      main: true,
      ...(chosen ? {} : { stands: 'bad' as const }),
    },
    ...(chosen
      ? [
          { id: 'colour', name: 'Colour', words: `${colour ?? 'none'} (${asked.family.replace(/-/g, ' ')})` },
          {
            id: 'share',
            name: 'Running',
            words: `${figure((100 * asked.runningAmps) / chosen.ratingAmps)} % of it, at most ${share * 100} %`,
          },
        ]
      : []),
  ];
  return {
    answers,
    governs: chosen
      ? [
          below ? `Not the next smaller: ${below.why}.` : '',
          above
            ? `Not a larger one: ${above.why}.`
            : 'A larger one is never better: the smallest that holds protects best.',
        ]
          .filter((one) => one !== '')
          .join(' ')
      : wireCarriesAmps === null
        ? `No rating of this family carries ${figure(asked.runningAmps, 'A')} for good: another family, or two circuits.`
        : `No rating carries the load and protects this wire at once (${reasons
            .map(({ why }) => why)
            .slice(-2)
            .join('; ')}): a thicker wire.`,
    steps: [
      { name: 'Running', formula: loadFormula },
      {
        name: 'Carried for good',
        formula: `${figure(asked.runningAmps, 'A')} ÷ ${share} = ${figure(asked.runningAmps / share, 'A')} at least`,
        source: asked.hot ? 'at most 70 % in a hot bay' : 'at most 80 % at 25 °C, ISO 8820-3',
      },
      ...(asked.startAmps !== null && chosen
        ? [
            {
              name: 'At the start',
              formula: `${figure(asked.startAmps, 'A')} ÷ ${formatNumber(chosen.ratingAmps)} A = ${figure(asked.startAmps / chosen.ratingAmps)} times: ${
                asked.startAmps <= chosen.ratingAmps
                  ? 'holds'
                  : openingTimeWords(openingTime(asked.startAmps / chosen.ratingAmps, asked.family))
              }`,
              source: 'band of regular blades, ISO 8820-3',
            },
          ]
        : []),
      ...(wireCarriesAmps === null
        ? []
        : [
            {
              name: 'The wire carries',
              formula: `${formatNumber(asked.wireMm2!)} mm²: ${figure(wireCarriesAmps, 'A')}${asked.hot ? ', bundled or hot' : ', free at 30 °C'}`,
              source: 'thin wall, 85 °C insulation',
            },
          ]),
    ],
    assumes: [asked.hot ? 'Fuse and wire in the heat.' : 'Fuse at 25 °C, wire free at 30 °C.'],
    leavesOut: [
      'What the maker prescribes for the slot: that comes first.',
      'Whether the holder and its terminals carry as much.',
    ],
    cautions: [
      ...(asked.wireMm2 === null ? ['The wire is not known: whether this protects it cannot be said.'] : []),
      ...(asked.startAmps === null
        ? ['Its start is not known: a motor may open it in the first moment.']
        : []),
      ...(chosen?.mayOpenAtStart === null && asked.startAmps !== null
        ? ['Whether it holds through the start needs the maker’s curve, or how long the start lasts.']
        : []),
    ],
    curve: chosen ? curveOf(asked, chosen.ratingAmps) : null,
    label: chosen
      ? `${formatNumber(chosen.ratingAmps)} A ${asked.family.replace(/-/g, ' ')} for ${figure(asked.runningAmps, 'A')}`
      : 'no fuse fits load and wire',
  };
}
