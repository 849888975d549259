/** Makes something once, however often it is asked for: the client gives every request an id, and repeats share it. */
import { and, eq } from 'drizzle-orm';
import type { Transaction } from './client';
import { requests } from './schema';
import { transaction } from './transaction';

export interface Asker {
  readonly shopId: string;
  readonly personId: string;
}

interface Refused {
  readonly ok: false;
}

/** Takes a transaction back without being an error of anybody. */
class TakenBack extends Error {
  constructor(readonly answer: Refused) {
    super('taken back');
  }
}

/**
 * Runs `work` in one transaction, all or nothing. What it refuses leaves nothing behind, so that the same request may
 * come again, put right. What it made is answered from then on without making it again; equal requests at the same
 * moment wait for the first of them.
 */
export async function once<T extends { readonly ok: boolean }>(
  asker: Asker,
  request: { readonly id: string; readonly kind: string },
  work: (tx: Transaction) => Promise<T>,
): Promise<T | IdTaken> {
  return all(async (tx) => {
    const [made] = await tx
      .insert(requests)
      .values({ ...request, shopId: asker.shopId, personId: asker.personId, answer: null })
      .onConflictDoNothing()
      .returning({ id: requests.id });
    if (made) {
      const answer = await work(tx);
      if (answer.ok) await tx.update(requests).set({ answer }).where(eq(requests.id, request.id));
      return answer;
    }
    const [known] = await tx
      .select({ answer: requests.answer })
      .from(requests)
      .where(
        and(eq(requests.id, request.id), eq(requests.shopId, asker.shopId), eq(requests.kind, request.kind)),
      );
    return known ? (known.answer as T) : ID_TAKEN;
  });
}

export type IdTaken = { readonly ok: false; readonly message: string };
const ID_TAKEN: IdTaken = { ok: false, message: 'The id of this request stands for something else already.' };

/** One transaction of which a refused result keeps nothing. */
export async function all<T extends { readonly ok: boolean }>(
  work: (tx: Transaction) => Promise<T>,
): Promise<T> {
  try {
    return await transaction(async (tx) => {
      const answer = await work(tx);
      if (!answer.ok) throw new TakenBack(answer as Refused);
      return answer;
    });
  } catch (error) {
    if (error instanceof TakenBack) return error.answer as T;
    throw error;
  }
}
