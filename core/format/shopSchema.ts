/**
 * The backup of a whole shop, version 2: a zip with this manifest, one file of lines for each table (`tables/NAME.jsonl`,
 * a JSON object a line, its fields named as the columns of the database), each photo as a file (`photos/ID.jpg`), and
 * `signature.json`: who made it. Version 1 has no signature. No passwords, sessions, codes or links are in it: whoever has
 * the file comes in nowhere by it.
 */
import { type Static, Type } from 'typebox';
import { SHOP_FORMAT } from './lists';
import { Instant, someText, strict, text, Uuid } from './schemaParts';

const Sha256 = Type.String({ pattern: '^[0-9a-f]{64}$' });
const Count = Type.Integer({ minimum: 0, maximum: Number.MAX_SAFE_INTEGER });

export const ShopManifestSchema = Type.Object(
  {
    format: Type.Literal(SHOP_FORMAT),
    version: Type.Enum([1, 2]),
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
  { ...strict, $id: 'every-trace/shop/2', title: 'Every Trace backup of a shop, version 2: its manifest' },
);

const Base64 = Type.String({ pattern: '^[A-Za-z0-9+/]+={0,2}$', maxLength: 200 });

/**
 * `signature.json`: of the bytes of `manifest.json`, which names every other file by its checksum (photos by their lines).
 * The key is of the installation that made the backup, as SubjectPublicKeyInfo (RFC 8410); both are base64.
 */
export const ShopSignatureSchema = Type.Object(
  { algorithm: Type.Literal('Ed25519'), publicKey: Base64, signature: Base64 },
  { ...strict, $id: 'every-trace/shop-signature/1', title: 'Every Trace backup of a shop: its signature' },
);

/** A line of `tables/photos.jsonl`, besides the columns of the table: the picture is a file of its own. */
export const PhotoLineSchema = Type.Object({
  id: Uuid,
  kind: Type.Enum(['image/jpeg', 'image/png', 'image/webp']),
  size: Type.Integer({ minimum: 1, maximum: 4 * 1024 * 1024 }),
  sha256: Sha256,
});

export type ShopManifest = Static<typeof ShopManifestSchema>;
export type ShopSignature = Static<typeof ShopSignatureSchema>;
export type PhotoLine = Static<typeof PhotoLineSchema>;
