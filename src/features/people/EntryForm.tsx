'use client';

import { useState } from 'react';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Button, Problem } from '@/ui/controls';
import { NewPassword, NewSignInName } from './fields';
import { goOn, sent } from './send';

/** Takes a link: a name and a password; a new password alone; or the account that is signed in already. */
export function EntryForm({
  token,
  known,
  least,
  signedIn,
}: {
  token: string;
  /** The person has an account, and gets a new password. */
  known: boolean;
  least: number;
  /** Who is signed in here, and may join the shop with that account. */
  signedIn: string | null;
}) {
  const [problem, setProblem] = useState<string | null>(null);
  const form = useKeptForm<{ name: string; password: string }>({
    keep: null,
    take: async (values) => {
      const name = textOf(values.name);
      if (!known && name === '')
        return { ok: false, message: 'Say by which name you sign in.', field: 'name' };
      if (!values.password) return { ok: false, message: 'Choose a password.', field: 'password' };
      const taken = await sent('/api/access/entry', {
        token,
        password: values.password,
        ...(known ? {} : { name }),
      });
      if (taken.ok) await goOn('/');
      return taken;
    },
  });
  const join = async () => {
    const taken = await sent('/api/access/entry', { token });
    if (!taken.ok) return setProblem(taken.message);
    await goOn('/');
  };
  return (
    <div className="grid gap-4">
      {signedIn !== null && !known ? (
        <div className="grid gap-2 border-b-2 border-line pb-4">
          <Button look="primary" className="h-14 text-lg" onClick={() => void join()}>
            Join as {signedIn}, who is signed in here
          </Button>
          {problem ? <Problem>{problem}</Problem> : null}
          <p className="text-soft">Or make an account for this shop alone:</p>
        </div>
      ) : null}
      <form onSubmit={form.submit} className="grid gap-4" method="post">
        {known ? null : <NewSignInName {...form.register('name')} />}
        <NewPassword
          least={least}
          label={known ? 'New password' : 'Password'}
          {...form.register('password')}
        />
        {form.problem ? <Problem>{form.problem}</Problem> : null}
        <Button type="submit" look="primary" className="h-14 text-lg" disabled={form.busy}>
          Come in
        </Button>
      </form>
    </div>
  );
}
