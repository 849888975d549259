/** What is asked of the server about people and how they come in. Nothing of it is ever an entry or in a file. */
import { type Static, Type } from 'typebox';
import { ROLES, SHORT_CODE } from './lists';
import { someText, strict, text, Uuid } from './schemaParts';

/** Longer ones would only cost time to hash. */
const Password = Type.String({ minLength: 1, maxLength: 128 });
/** A secret that a link or a cookie carries. */
const Token = Type.String({ pattern: '^[A-Za-z0-9_-]{20,64}$' });
/** The short code of a person on a phone of the shop. */
const Code = Type.String({ pattern: SHORT_CODE });

export const SignInSchema = Type.Object({ name: someText(120), password: Password }, strict);

export const CodeSignInSchema = Type.Object({ person: Uuid, code: Code }, strict);

/** Begins a shop: its name and town, and its owner. */
export const BeginSchema = Type.Object(
  { shop: someText(80), town: text(80), owner: someText(80), name: someText(120), password: Password },
  strict,
);

/** Takes a link: with a name and a password, or with the account that is signed in. */
export const EntrySchema = Type.Object(
  { token: Token, name: Type.Optional(someText(120)), password: Type.Optional(Password) },
  strict,
);

/** The demo's person that somebody on this machine wants to be. */
export const DemoPersonSchema = Type.Object({ person: Type.Union([Uuid, Type.Null()]) }, strict);

/** What a person changes of the own account. */
export const SelfSchema = Type.Union([
  Type.Object({ kind: Type.Literal('password'), now: Password, next: Password }, strict),
  Type.Object(
    { kind: Type.Literal('code'), password: Password, code: Type.Union([Code, Type.Null()]) },
    strict,
  ),
  Type.Object({ kind: Type.Literal('shop'), person: Uuid }, strict),
  Type.Object({ kind: Type.Literal('end-session'), session: Uuid }, strict),
  Type.Object({ kind: Type.Literal('end-others') }, strict),
]);

/** What an owner does about the people and phones of the shop. */
export const PeopleSchema = Type.Union([
  Type.Object(
    { kind: Type.Literal('add'), id: Uuid, name: someText(80), role: Type.Enum([...ROLES]) },
    strict,
  ),
  Type.Object({ kind: Type.Literal('link'), person: Uuid }, strict),
  Type.Object({ kind: Type.Literal('role'), person: Uuid, role: Type.Enum([...ROLES]) }, strict),
  Type.Object({ kind: Type.Literal('leave'), person: Uuid }, strict),
  Type.Object({ kind: Type.Literal('return'), person: Uuid }, strict),
  Type.Object({ kind: Type.Literal('device'), name: someText(60) }, strict),
  Type.Object({ kind: Type.Literal('end-device'), device: Uuid }, strict),
  Type.Object({ kind: Type.Literal('remove-demo') }, strict),
]);

/** A link for somebody without an account, to one sheet of a job; or the end of one. */
export const GuestSchema = Type.Union([
  Type.Object(
    {
      kind: Type.Literal('make'),
      sheet: Type.Enum(['technician', 'customer']),
      days: Type.Integer({ minimum: 1, maximum: 90 }),
      forWhom: text(80),
    },
    strict,
  ),
  Type.Object({ kind: Type.Literal('end'), link: Uuid }, strict),
]);

/** What a phone at the key answers: a card, with what has to be set for it. */
const Card = someText(2400);

/** A card that waits for the person at the key, or what ends that. */
export const HelperSchema = Type.Union([
  Type.Object(
    {
      kind: Type.Literal('ask'),
      card: Card,
      settings: Type.Array(someText(200), { minItems: 1, maxItems: 8 }),
    },
    strict,
  ),
  Type.Object({ kind: Type.Literal('answered'), card: Card }, strict),
  Type.Object({ kind: Type.Literal('end') }, strict),
]);

export const HelperJoinSchema = Type.Object(
  { code: Type.String({ pattern: '^[0-9]{9}$' }), name: someText(60) },
  strict,
);
export const HelperStandsSchema = Type.Object({ card: Card }, strict);

export type SignInRequest = Static<typeof SignInSchema>;
export type CodeSignInRequest = Static<typeof CodeSignInSchema>;
export type BeginRequest = Static<typeof BeginSchema>;
export type EntryRequest = Static<typeof EntrySchema>;
export type DemoPersonRequest = Static<typeof DemoPersonSchema>;
export type SelfRequest = Static<typeof SelfSchema>;
export type PeopleRequest = Static<typeof PeopleSchema>;
export type GuestRequest = Static<typeof GuestSchema>;
export type HelperRequest = Static<typeof HelperSchema>;
export type HelperJoinRequest = Static<typeof HelperJoinSchema>;
export type HelperStandsRequest = Static<typeof HelperStandsSchema>;
