/** One way to the server: what it answers to entries or a picture, and what it means where it does not take them. */
import type { JobEvent, Problem } from '#core/format';

/** Answers of a server that cannot at the moment, besides those of 500 and above. */
const LATER: readonly number[] = [408, 425, 429];
/** So long an answer is waited for: a link that was cut says nothing. What was sent is sent again, and is there once. */
const ANSWER_MS = 10_000;
const PICTURE_ANSWER_MS = 60_000;
const SIGNED_OUT = 401;
/** Header that says whose entries are sent: the server takes them of nobody else. */
const WHOSE = 'X-Every-Trace-Person';

export interface Receipt {
  readonly id: string;
  readonly seq: number;
  readonly person: string;
  readonly arrivedAt: string;
}

export interface Answered {
  readonly ok: boolean;
  readonly status: number;
  readonly answer: {
    readonly stored?: readonly Receipt[];
    readonly problems?: readonly Problem[];
    readonly message?: string;
  };
}

/**
 * Sends once. `away`: no answer that can be read, or one of a server that cannot at the moment; `nobody`: nobody is
 * signed in here; `others`: it takes this of somebody else only. `person`: whose it is, where that is known.
 */
export async function deliver(
  url: string,
  body: string | Blob,
  person: string | null,
): Promise<Answered | 'away' | 'nobody' | 'others'> {
  const headers = {
    'Content-Type': typeof body === 'string' ? 'application/json' : body.type || 'image/jpeg',
    ...(person === null ? {} : { [WHOSE]: person }),
  };
  try {
    const signal = AbortSignal.timeout(typeof body === 'string' ? ANSWER_MS : PICTURE_ANSWER_MS);
    const response = await fetch(url, { method: 'POST', body, headers, signal });
    const { ok, status } = response;
    if (status >= 500 || LATER.includes(status)) return 'away';
    const answer = (await response.json()) as Answered['answer'];
    if (status === SIGNED_OUT) return 'nobody';
    return answer.problems?.[0]?.code === 'somebody-else' ? 'others' : { ok, status, answer };
  } catch {
    return 'away';
  }
}

/** The entries that an answer names, each with its reasons. */
export function refusedIn(events: readonly JobEvent[], problems: readonly Problem[]): Map<string, string> {
  const named = new Map<string, string>();
  for (const { id } of events) {
    const own = problems.filter(({ path }) => path === `/events/${id}` || path.startsWith(`/events/${id}/`));
    if (own.length > 0) named.set(id, own.map((one) => one.message).join(' '));
  }
  return named;
}
