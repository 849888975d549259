/** Who acts, in which shop and role, and how people come in. */
export {
  accountOf,
  accountProblem,
  begin,
  isPasswordOf,
  knownMark,
  type Let,
  makeAccount,
  type Refused,
  refused,
  setPassword,
  shopOfDevice,
  signIn,
  signInByCode,
  signOut,
} from './accounts';
export type { Actor } from './actor';
export { SESSION_S } from './auth';
export { DEMO_COOKIE, demoPeople, enter, mayUseDemo } from './enter';
export { hashed } from './hashing';
export { clientAddress, isAtThisMachine, isSecure, isShared } from './origin';
export { PASSWORD_LEAST, passwordProblem } from './password';
export { hashOf, newCode, newToken } from './secrets';
export { givenBack, triedOnce, triedWell, waitWords } from './tries';
