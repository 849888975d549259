/** The survey file, version 1: where each slot of a vehicle was live, and what kind of feed that makes it. Goes out only. */
import { type Static, Type } from 'typebox';
import { KEY_STATES, SURVEY_FORMAT } from './lists';
import { Id, strict, text } from './schemaParts';

const State = Type.Enum([...KEY_STATES]);
const Stands = Type.Enum(['live', 'weak', 'dead']);
const Feed = Type.Enum([
  'constant',
  'accessory',
  'run',
  'ignition',
  'crank',
  'delayed',
  'module',
  'load-side',
  'dead',
  'unknown',
]);

export const SurveyFileSchema = Type.Object(
  {
    format: Type.Literal(SURVEY_FORMAT),
    version: Type.Literal(1),
    vehicle: text(200),
    nominalVolts: Type.Number({ exclusiveMinimum: 0, maximum: 60 }),
    slots: Type.Array(
      Type.Object(
        {
          panel: Id,
          slot: Id,
          label: text(80),
          /** As read in each state; a state that is not named was not read. */
          states: Type.Object(
            Object.fromEntries(KEY_STATES.map((state) => [state, Type.Optional(Stands)])),
            strict,
          ),
          feed: Feed,
          /** What it may still be while readings are missing. */
          possible: Type.Array(Feed, { maxItems: 10 }),
          stillToRead: Type.Array(State, { maxItems: 7 }),
          /** A delayed feed was dead so long after the key went off. */
          droppedAfterSeconds: Type.Optional(Type.Number({ minimum: 0, maximum: 86_400 })),
          supplySide: Type.Optional(Type.Enum(['first', 'second'])),
          twoFeeds: Type.Boolean(),
        },
        strict,
      ),
      { maxItems: 16_000 },
    ),
  },
  { ...strict, $id: 'every-trace/survey/1', title: 'Every Trace survey file, version 1' },
);

export type SurveyFile = Static<typeof SurveyFileSchema>;
