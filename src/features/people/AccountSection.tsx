'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { type Role, shortCodeProblem } from '#core/format';
import { forgetPredictions } from '@/sync/predictionsPlace';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Button, Problem } from '@/ui/controls';
import { dateWords } from '@/ui/dates';
import { Fold } from '@/ui/Fold';
import { useSay } from '@/ui/Toast';
import { NewPassword, Password, ShortCode } from './fields';
import { goOn, sent } from './send';
import { ROLE_WORDS } from './words';

interface Session {
  readonly id: string;
  readonly agent: string | null;
  readonly begunBy: string | null;
  readonly since: string;
  readonly shopName: string | null;
  readonly here: boolean;
}

interface OtherShop {
  readonly personId: string;
  readonly role: Role;
  readonly shopName: string;
}

async function signOut(): Promise<void> {
  await sent('/api/access/sign-out', {});
  await forgetPredictions();
  await goOn('/sign-in');
}

/** The own account: where it is signed in, its password and short code, the shops it belongs to. */
export function AccountSection({
  person,
  personId,
  sessions,
  shops,
  least,
}: {
  person: string;
  personId: string;
  sessions: readonly Session[];
  shops: readonly OtherShop[];
  least: number;
}) {
  const router = useRouter();
  const say = useSay();
  const [problem, setProblem] = useState<string | null>(null);
  const act = async (body: object, done: string) => {
    const taken = await sent('/api/access/self', body);
    if (!taken.ok) return setProblem(taken.message);
    setProblem(null);
    say(done);
    router.refresh();
  };
  const others = shops.filter((one) => one.personId !== personId);
  return (
    <section aria-labelledby="account" className="mt-8" data-testid="account">
      <div className="flex flex-wrap items-end justify-between gap-2 border-b-2 border-line pb-2">
        <h2 id="account" className="text-xl">
          {person}, signed in
        </h2>
        <Button onClick={() => void signOut()}>Sign out</Button>
      </div>
      {problem ? <Problem>{problem}</Problem> : null}
      {others.length > 0 ? (
        <div className="mt-3 flex flex-wrap items-center gap-2" data-testid="shops">
          <span className="font-semibold">Go over to</span>
          {others.map((one) => (
            <Button
              key={one.personId}
              onClick={() =>
                void sent('/api/access/self', { kind: 'shop', person: one.personId }).then((taken) =>
                  taken.ok ? goOn('/') : setProblem(taken.message),
                )
              }
            >
              {one.shopName}, {ROLE_WORDS[one.role]}
            </Button>
          ))}
        </div>
      ) : null}
      <h3 className="mt-4 font-semibold">Signed in on</h3>
      <ul className="divide-y divide-line" data-testid="sessions">
        {sessions.map((one) => (
          <li key={one.id} className="flex flex-wrap items-center justify-between gap-2 py-1">
            <span>
              {deviceWords(one.agent)}
              {one.here ? <strong> · this one</strong> : null}
              <span className="text-soft">
                {' '}
                · since {dateWords(one.since, 'short')} {dateWords(one.since, 'time')}
                {one.begunBy === 'code' ? ', by short code' : ''}
                {one.shopName ? ` · ${one.shopName}` : ''}
              </span>
            </span>
            {one.here ? null : (
              <Button
                onClick={() => void act({ kind: 'end-session', session: one.id }, 'That session is ended.')}
              >
                End it
              </Button>
            )}
          </li>
        ))}
      </ul>
      {sessions.length > 2 ? (
        <Button
          className="mt-2"
          onClick={() => void act({ kind: 'end-others' }, 'All other sessions are ended.')}
        >
          End all others
        </Button>
      ) : null}
      <div className="mt-3 grid gap-2">
        <PasswordForm least={least} onDone={() => router.refresh()} />
        <CodeForm onDone={() => router.refresh()} />
      </div>
    </section>
  );
}

/** A browser's own words for itself, as far as anybody wants to read them. */
function deviceWords(agent: string | null): string {
  if (!agent) return 'A browser';
  const on = /Android/.test(agent)
    ? 'an Android phone'
    : /iPhone|iPad/.test(agent)
      ? 'an iPhone or iPad'
      : /Windows/.test(agent)
        ? 'Windows'
        : /Mac OS/.test(agent)
          ? 'a Mac'
          : /Linux/.test(agent)
            ? 'Linux'
            : 'something else';
  return `A browser on ${on}`;
}

function PasswordForm({ least, onDone }: { least: number; onDone: () => void }) {
  const say = useSay();
  const form = useKeptForm<{ now: string; next: string }>({
    keep: null,
    take: async ({ now, next }) => {
      if (!now) return { ok: false, message: 'The present password is missing.', field: 'now' };
      if (!next) return { ok: false, message: 'Choose a new password.', field: 'next' };
      const taken = await sent('/api/access/self', { kind: 'password', now, next });
      if (taken.ok) {
        say('The password is changed, and every other session ended.');
        onDone();
      }
      return taken;
    },
  });
  return (
    <Fold title="Another password">
      <form
        onSubmit={form.submit}
        className="grid gap-2 sm:grid-cols-[1fr_1fr_auto] sm:items-end"
        method="post"
      >
        <Password label="Password now" {...form.register('now')} />
        <NewPassword least={least} label="New password" {...form.register('next')} />
        <Button type="submit" disabled={form.busy}>
          Change it
        </Button>
      </form>
      {form.problem ? <Problem>{form.problem}</Problem> : null}
    </Fold>
  );
}

function CodeForm({ onDone }: { onDone: () => void }) {
  const say = useSay();
  const form = useKeptForm<{ password: string; code: string }>({
    keep: null,
    take: async (values) => {
      const code = textOf(values.code);
      if (!values.password) return { ok: false, message: 'The password is missing.', field: 'password' };
      const problem = code === '' ? null : shortCodeProblem(code);
      if (problem) return { ok: false, message: problem, field: 'code' };
      const taken = await sent('/api/access/self', {
        kind: 'code',
        password: values.password,
        code: code === '' ? null : code,
      });
      if (taken.ok) {
        say(code === '' ? 'The short code is taken away.' : 'The short code works on phones of the shop.');
        onDone();
      }
      return taken;
    },
  });
  return (
    <Fold title="A short code for phones of the shop">
      <p className="text-sm text-soft">
        On a phone that the shop shares, it is enough after the first sign-in. After five wrong tries only the
        password helps.
      </p>
      <form
        onSubmit={form.submit}
        className="mt-2 grid gap-2 sm:grid-cols-[1fr_1fr_auto] sm:items-end"
        method="post"
      >
        <Password {...form.register('password')} />
        <ShortCode label="Short code, 4 to 8 digits; empty for none" {...form.register('code')} />
        <Button type="submit" disabled={form.busy}>
          Keep it
        </Button>
      </form>
      {form.problem ? <Problem>{form.problem}</Problem> : null}
    </Fold>
  );
}
