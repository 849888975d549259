/** How forms ask the server for something: what it answers, or that it is away, never an exception. */

export type Posted<T> =
  | { readonly kind: 'answer'; readonly ok: boolean; readonly status: number; readonly answer: T }
  | { readonly kind: 'away'; readonly message: string };

/** Said where the server did not answer: nothing was lost, and asking again makes nothing twice. */
const AWAY = 'The server did not answer. What you wrote is still here; try again.';

/** Sends JSON. An answer that cannot be read, and one of a server that cannot at the moment, count as away. */
export async function postJson<T extends object>(url: string, body: object): Promise<Posted<T>> {
  try {
    const response = await fetch(url, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
    if (response.status >= 500) return { kind: 'away', message: AWAY };
    const answer = (await response.json()) as T;
    return { kind: 'answer', ok: response.ok, status: response.status, answer };
  } catch {
    return { kind: 'away', message: AWAY };
  }
}
