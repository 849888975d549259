/** Sends what a form before the door asks for, and goes on where it was taken. */

import { postJson } from '@/sync/post';
import type { Taken } from '@/sync/useKeptForm';
import { askWhoAgain } from '@/sync/who';

interface Answer {
  readonly message?: string;
}

/** Why it was not taken, or that it was. */
export async function sent(url: string, body: object): Promise<Taken> {
  const posted = await postJson<Answer>(url, body);
  if (posted.kind === 'away') return { ok: false, message: 'The server did not answer. Try again.' };
  if (!posted.ok) return { ok: false, message: posted.answer.message ?? 'It was not taken.' };
  return { ok: true };
}

/** Somebody else is here now: what the browser knows of them is asked anew, and the page is loaded whole. */
export async function goOn(to: string): Promise<void> {
  await askWhoAgain();
  window.location.assign(to);
}
