/** What a password has to be: long enough, and none of those that are tried first. */
import type { ZxcvbnFactory } from '@zxcvbn-ts/core';

/** Fewest characters. */
export const PASSWORD_LEAST = 12;

let judge: ZxcvbnFactory | null = null;

/** Why a password will not do, in words; null where it will. `near`: names that it must not be made of. */
export async function passwordProblem(password: string, near: readonly string[]): Promise<string | null> {
  if ([...password].length < PASSWORD_LEAST) return `A password has at least ${PASSWORD_LEAST} characters.`;
  judge ??= await newJudge();
  const { score } = judge.check(password, [...near]);
  return score < 2
    ? 'This password is among those that are guessed first. Take a longer one, three or four words for instance.'
    : null;
}

/** With its dictionaries, which are large: read when the first password is chosen. */
async function newJudge(): Promise<ZxcvbnFactory> {
  const [core, { adjacencyGraphs, dictionary }] = await Promise.all([
    import('@zxcvbn-ts/core'),
    import('@zxcvbn-ts/language-common'),
  ]);
  return new core.ZxcvbnFactory({ graphs: adjacencyGraphs, dictionary });
}
