'use client';

import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Button, Field, INPUT, Problem } from '@/ui/controls';
import { NewPassword, NewSignInName } from './fields';
import { goOn, sent } from './send';

interface Values {
  shop: string;
  town: string;
  owner: string;
  name: string;
  password: string;
}

const MISSING = {
  shop: 'The shop needs a name.',
  owner: 'Say who owns the shop.',
  name: 'Say by which name or address you sign in.',
  password: 'Choose a password.',
} as const;

/** A shop of one's own: its name, its town, its owner, and how the owner signs in. */
export function BeginForm({ least }: { least: number }) {
  const form = useKeptForm<Values>({
    keep: null,
    take: async (values) => {
      const { password } = values;
      const said = {
        shop: textOf(values.shop),
        town: textOf(values.town),
        owner: textOf(values.owner),
        name: textOf(values.name),
        password,
      };
      for (const [field, message] of Object.entries(MISSING)) {
        if (!said[field as keyof typeof said]) return { ok: false, message, field };
      }
      const taken = await sent('/api/access/begin', said);
      if (taken.ok) await goOn('/');
      return taken;
    },
  });
  return (
    <form onSubmit={form.submit} className="grid gap-4" method="post">
      <div className="grid gap-4 sm:grid-cols-2">
        <Field label="Name of the shop">
          <input {...form.register('shop')} className={INPUT} autoComplete="organization" />
        </Field>
        <Field label="Town">
          <input {...form.register('town')} className={INPUT} autoComplete="address-level2" />
        </Field>
      </div>
      <Field label="Your name, as it stands beside what you record">
        <input {...form.register('owner')} className={INPUT} autoComplete="name" />
      </Field>
      <div className="grid gap-4 sm:grid-cols-2">
        <NewSignInName {...form.register('name')} />
        <NewPassword least={least} {...form.register('password')} />
      </div>
      {form.problem ? <Problem>{form.problem}</Problem> : null}
      <Button type="submit" look="primary" className="h-14 text-lg" disabled={form.busy}>
        Begin the shop
      </Button>
    </form>
  );
}
