'use client';

import { useCallback, useEffect, useState } from 'react';
import { HELPER_CAUTION } from '#core/safety';
import { postJson } from '@/sync/post';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Button, Caution, Field, INPUT, Problem } from '@/ui/controls';

interface Seen {
  readonly vehicle: string;
  readonly name: string;
  readonly asked: { readonly card: string; readonly settings: readonly string[] } | null;
  readonly stands: boolean;
}

/** `undefined` until it is known; null while this phone has not joined. */
type Here = Seen | null | undefined;

/** So often it is asked where no news come by themselves. */
const LOOK_MS = 4000;

/** One thing: the state to set now, and that it stands so. */
export function AtTheKeyView({ code }: { code: string }) {
  const [here, setHere] = useState<Here>(undefined);
  const [away, setAway] = useState(false);
  const look = useCallback(async () => {
    const answer = await fetch('/api/helper').catch(() => null);
    setAway(answer === null || answer.status >= 500);
    if (answer?.ok) setHere((await answer.json()) as Seen);
    else if (answer?.status === 404) setHere(null);
  }, []);
  const joined = here !== null && here !== undefined;
  useEffect(() => {
    void look();
  }, [look]);
  useEffect(() => {
    if (!joined) return;
    const source = new EventSource('/api/helper/live');
    source.addEventListener('asked', () => void look());
    const timer = setInterval(() => void look(), LOOK_MS);
    document.addEventListener('visibilitychange', look);
    return () => {
      source.close();
      clearInterval(timer);
      document.removeEventListener('visibilitychange', look);
    };
  }, [joined, look]);
  if (here === undefined) {
    return (
      <p role="status" className="py-16 text-center text-soft">
        {away ? 'The server does not answer; it is asked again.' : 'A moment …'}
      </p>
    );
  }
  if (here === null) return <JoinForm code={code} onJoined={() => void look()} />;
  return <Asked here={here} away={away} onSeen={setHere} />;
}

function Asked({ here, away, onSeen }: { here: Seen; away: boolean; onSeen: (seen: Here) => void }) {
  const [problem, setProblem] = useState<string | null>(null);
  const stands = async () => {
    if (!here.asked) return;
    const posted = await postJson<Seen & { message?: string }>('/api/helper', { card: here.asked.card });
    if (posted.kind === 'away') return setProblem('It did not arrive. Tap once more.');
    setProblem(null);
    onSeen(posted.ok ? posted.answer : null);
  };
  return (
    <div className="mx-auto flex min-h-[75dvh] max-w-xl flex-col gap-4" data-testid="at-the-key">
      <p className="text-soft">
        {here.name}, at the key of <strong className="text-ink">{here.vehicle}</strong>
      </p>
      {away ? <Problem>The server does not answer; it is asked again.</Problem> : null}
      {here.asked === null ? (
        <p role="status" className="grid grow place-items-center text-center text-3xl font-bold">
          Wait. Touch nothing.
        </p>
      ) : (
        <>
          <ul
            role="status"
            className="grid grow content-center gap-4 text-center text-5xl leading-tight font-bold"
          >
            {here.asked.settings.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
          <Caution>{HELPER_CAUTION}</Caution>
          {problem ? <Problem>{problem}</Problem> : null}
          {here.stands ? (
            <p
              role="status"
              className="grid h-24 place-items-center border-4 border-good text-2xl font-bold text-good"
            >
              ✓ Told. Leave it so.
            </p>
          ) : (
            <Button look="primary" className="h-24 text-2xl" onClick={() => void stands()}>
              It stands so
            </Button>
          )}
        </>
      )}
    </div>
  );
}

function JoinForm({ code, onJoined }: { code: string; onJoined: () => void }) {
  const form = useKeptForm<{ code: string; name: string }>({
    keep: null,
    first: { code },
    take: async (values) => {
      const digits = textOf(values.code).replace(/\D/g, '');
      const name = textOf(values.name);
      if (digits.length !== 9) return { ok: false, message: 'The code has nine digits.', field: 'code' };
      if (name === '') return { ok: false, message: 'Say who you are.', field: 'name' };
      const posted = await postJson<{ message?: string }>('/api/helper/join', { code: digits, name });
      if (posted.kind === 'away') return { ok: false, message: 'The server did not answer. Try again.' };
      if (!posted.ok) return { ok: false, message: posted.answer.message ?? 'It was not taken.' };
      onJoined();
      return { ok: true };
    },
  });
  return (
    <form onSubmit={form.submit} className="mx-auto grid max-w-md gap-4">
      <h1 className="text-3xl">At the key</h1>
      <p>You set the key and switches when told; this phone says what, and you say when it stands so.</p>
      <Caution>{HELPER_CAUTION}</Caution>
      <Field label="Code on the technician’s screen">
        <input
          {...form.register('code')}
          inputMode="numeric"
          autoComplete="off"
          className={`${INPUT} reading text-3xl`}
        />
      </Field>
      <Field label="Your name">
        <input {...form.register('name')} autoComplete="name" className={INPUT} />
      </Field>
      {form.problem ? <Problem>{form.problem}</Problem> : null}
      <Button type="submit" look="primary" className="h-16 text-xl" disabled={form.busy}>
        I am at the key
      </Button>
    </form>
  );
}
