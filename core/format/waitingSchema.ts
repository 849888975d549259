/**
 * What waits in a browser, version 1: entries and pictures that the server does not have yet, each with whose it is. It is
 * taken out where an address is no longer reached, and read in at the new one.
 */
import { type Static, type TSchema, Type } from 'typebox';
import { JobEventSchema } from './jobSchema';
import { WAITING_FORMAT } from './lists';
import { Instant, someText, strict, Uuid } from './schemaParts';

const Owner = Type.Object(
  { person: Uuid, shop: Uuid, shopName: Type.Optional(someText(200)), name: someText(200) },
  strict,
);

const waitingFile = <T extends TSchema>(event: T) =>
  Type.Object(
    {
      format: Type.Literal(WAITING_FORMAT),
      version: Type.Literal(1),
      savedAt: Instant,
      entries: Type.Array(Type.Object({ event, by: Type.Optional(Owner) }, strict), { maxItems: 20_000 }),
      pictures: Type.Array(
        Type.Object(
          {
            id: Uuid,
            jobId: Uuid,
            by: Type.Optional(Owner),
            type: Type.String({ pattern: '^image/[a-z0-9.+-]{1,30}$' }),
            /** Base64. */
            bytes: Type.String({ pattern: '^[A-Za-z0-9+/]*={0,2}$' }),
          },
          strict,
        ),
        { maxItems: 2000 },
      ),
    },
    {
      ...strict,
      $id: 'every-trace/waiting/1',
      title: 'Every Trace entries that wait in a browser, version 1',
    },
  );

export const WaitingFileSchema = waitingFile(JobEventSchema);
/** The same without its entries, which are checked one by one. */
export const WaitingFrameSchema = waitingFile(Type.Unknown());

export type WaitingFile = Static<typeof WaitingFileSchema>;
