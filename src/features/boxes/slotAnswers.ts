/** What a probe at the ends of a slot can tell, one tap each; the ends named by side, or by where they lie. */
import type { BodyOf } from '#core/format';
import type { EndWords } from '#core/panel';

export type Ends = BodyOf<'slot-reading'>['ends'];

const lit = { lamp: 'lit' } as const;
const off = { lamp: 'off' } as const;

/** One tap tells both ends; the next slot comes up by itself. */
export const PAIRS = [
  {
    key: '1',
    word: 'Both lit',
    ends: [
      { end: 'feed', value: lit },
      { end: 'load', value: lit },
    ],
  },
  {
    key: '2',
    word: 'Feed side only',
    ends: [
      { end: 'feed', value: lit },
      { end: 'load', value: off },
    ],
  },
  {
    key: '3',
    word: 'Load side only',
    ends: [
      { end: 'feed', value: off },
      { end: 'load', value: lit },
    ],
  },
  {
    key: '4',
    word: 'Both dark',
    ends: [
      { end: 'feed', value: off },
      { end: 'load', value: off },
    ],
  },
] as const satisfies readonly { key: string; word: string; ends: Ends }[];

/** A three-leg fuse: one slot, two elements, three ends. */
export const THREE = [
  {
    key: '1',
    word: 'All three lit',
    ends: [
      { end: 'feed', value: lit },
      { end: 'load', value: lit },
      { end: 'load-2', value: lit },
    ],
  },
  {
    key: '2',
    word: 'Second load end dark',
    ends: [
      { end: 'feed', value: lit },
      { end: 'load', value: lit },
      { end: 'load-2', value: off },
    ],
  },
  {
    key: '3',
    word: 'First load end dark',
    ends: [
      { end: 'feed', value: lit },
      { end: 'load', value: off },
      { end: 'load-2', value: lit },
    ],
  },
  {
    key: '4',
    word: 'Feed end only',
    ends: [
      { end: 'feed', value: lit },
      { end: 'load', value: off },
      { end: 'load-2', value: off },
    ],
  },
  {
    key: '5',
    word: 'All three dark',
    ends: [
      { end: 'feed', value: off },
      { end: 'load', value: off },
      { end: 'load-2', value: off },
    ],
  },
] as const satisfies readonly { key: string; word: string; ends: Ends }[];

/** The same where nobody knows which end is fed: by where the ends lie as the box is held. */
export const byPlace = (held: EndWords) => [
  {
    key: '1',
    word: 'Both lit',
    ends: [
      { end: 'first', value: lit },
      { end: 'second', value: lit },
    ] as Ends,
  },
  {
    key: '2',
    word: `Only the ${held.first} end lit`,
    ends: [
      { end: 'first', value: lit },
      { end: 'second', value: off },
    ] as Ends,
  },
  {
    key: '3',
    word: `Only the ${held.second} end lit`,
    ends: [
      { end: 'first', value: off },
      { end: 'second', value: lit },
    ] as Ends,
  },
  {
    key: '4',
    word: 'Both dark',
    ends: [
      { end: 'first', value: off },
      { end: 'second', value: off },
    ] as Ends,
  },
];

export const OUT = [
  { key: '1', word: 'Load side still live', ends: [{ end: 'load', value: lit }] },
  { key: '2', word: 'Load side dead', ends: [{ end: 'load', value: off }] },
] as const satisfies readonly { key: string; word: string; ends: Ends }[];
