'use client';

import { useEffect, useState } from 'react';
import { isShortCode, SHORT_CODE_WORDS } from '#core/format';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Button, Problem } from '@/ui/controls';
import { Password, ShortCode, SignInName } from './fields';
import { goOn, sent } from './send';

interface WithCode {
  readonly id: string;
  readonly name: string;
  readonly shopName: string;
}

/** By name and password; on a phone of the shop by who one is and a short code. */
export function SignInForm({ to }: { to: string }) {
  const [people, setPeople] = useState<readonly WithCode[]>([]);
  const [byPassword, setByPassword] = useState(false);
  useEffect(() => {
    void fetch('/api/access/code')
      .then((response) => response.json())
      .then((answer: { people?: readonly WithCode[] }) => setPeople(answer.people ?? []))
      .catch(() => undefined);
  }, []);
  if (people.length > 0 && !byPassword) {
    return <CodeForm people={people} to={to} onPassword={() => setByPassword(true)} />;
  }
  return <PasswordForm to={to} />;
}

function PasswordForm({ to }: { to: string }) {
  const form = useKeptForm<{ name: string; password: string }>({
    keep: null,
    take: async (values) => {
      const name = textOf(values.name);
      if (name === '') return { ok: false, message: 'Say who you are.', field: 'name' };
      if (!values.password) return { ok: false, message: 'The password is missing.', field: 'password' };
      const taken = await sent('/api/access/sign-in', { name, password: values.password });
      if (taken.ok) await goOn(to);
      return taken;
    },
  });
  return (
    <form onSubmit={form.submit} className="grid gap-4" method="post">
      <SignInName label="E-mail or name" {...form.register('name')} />
      <Password {...form.register('password')} />
      {form.problem ? <Problem>{form.problem}</Problem> : null}
      <Button type="submit" look="primary" className="h-14 text-lg" disabled={form.busy}>
        Sign in
      </Button>
      <p className="text-sm text-soft">
        No password, or forgotten? The owner of the shop makes you a link; the owner gets one on the machine
        with <span className="reading">npm run recover</span>.
      </p>
    </form>
  );
}

function CodeForm({
  people,
  to,
  onPassword,
}: {
  people: readonly WithCode[];
  to: string;
  onPassword: () => void;
}) {
  const [who, setWho] = useState(people.length === 1 ? people[0]! : null);
  const form = useKeptForm<{ code: string }>({
    keep: null,
    take: async (values) => {
      const code = textOf(values.code);
      if (!isShortCode(code)) return { ok: false, message: SHORT_CODE_WORDS, field: 'code' };
      const taken = await sent('/api/access/code', { person: who?.id, code });
      if (taken.ok) await goOn(to);
      return taken;
    },
  });
  return (
    <div className="grid gap-4">
      <p className="text-soft">Phone of {people[0]!.shopName}</p>
      <fieldset className="grid gap-2">
        <legend className="mb-1 font-semibold">Who are you</legend>
        {people.map((one) => (
          <Button
            key={one.id}
            look={who?.id === one.id ? 'primary' : 'plain'}
            aria-pressed={who?.id === one.id}
            className="h-14 text-lg"
            onClick={() => setWho(one)}
          >
            {one.name}
          </Button>
        ))}
      </fieldset>
      {who ? (
        <form onSubmit={form.submit} className="grid gap-3">
          <ShortCode label={`Short code of ${who.name}`} className="text-2xl" {...form.register('code')} />
          {form.problem ? <Problem>{form.problem}</Problem> : null}
          <Button type="submit" look="primary" className="h-14 text-lg" disabled={form.busy}>
            Come in
          </Button>
        </form>
      ) : null}
      <Button onClick={onPassword}>With a password</Button>
    </div>
  );
}
