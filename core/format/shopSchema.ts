/**
 * The backup of a whole shop, version 1: a zip with this manifest, one file of lines for each table (`tables/NAME.jsonl`,
 * a JSON object a line, its fields named as the columns of the database) and each photo as a file (`photos/ID.jpg`). No
 * passwords, sessions, codes or links are in it: whoever has the file comes in nowhere by it.
 */
import { type Static, Type } from 'typebox';
import { SHOP_FORMAT } from './lists';
import { Instant, someText, strict, text, Uuid } from './schemaParts';

const Sha256 = Type.String({ pattern: '^[0-9a-f]{64}$' });
const Count = Type.Integer({ minimum: 0, maximum: Number.MAX_SAFE_INTEGER });

export const ShopManifestSchema = Type.Object(
  {
    format: Type.Literal(SHOP_FORMAT),
    version: Type.Literal(1),
    /** How many migrations the database had that it was taken from: the form of its lines. */
    migration: Type.Integer({ minimum: 1, maximum: 10_000 }),
    madeAt: Instant,
    shop: Type.Object({ id: Uuid, name: someText(200), town: text(200) }, strict),
    tables: Type.Array(
      Type.Object(
        {
          name: Type.String({ pattern: '^[a-z_]{1,60}$' }),
          rows: Count,
          bytes: Count,
          /** Of the file as it is when it is taken out of the zip. */
          sha256: Sha256,
        },
        strict,
      ),
      { minItems: 1, maxItems: 100 },
    ),
    photos: Type.Object({ count: Count, bytes: Count }, strict),
  },
  { ...strict, $id: 'every-trace/shop/1', title: 'Every Trace backup of a shop, version 1: its manifest' },
);

/** A line of `tables/photos.jsonl`, besides the columns of the table: the picture is a file of its own. */
export const PhotoLineSchema = Type.Object({
  id: Uuid,
  kind: Type.Enum(['image/jpeg', 'image/png', 'image/webp']),
  size: Type.Integer({ minimum: 1, maximum: 4 * 1024 * 1024 }),
  sha256: Sha256,
});

export type ShopManifest = Static<typeof ShopManifestSchema>;
export type PhotoLine = Static<typeof PhotoLineSchema>;
