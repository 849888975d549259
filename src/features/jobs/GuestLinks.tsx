'use client';

import { useEffect, useState } from 'react';
import { may } from '#core/log';
import { useJob } from '@/job/JobProvider';
import { postJson } from '@/sync/post';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { useWho } from '@/sync/who';
import { CopyField } from '@/ui/CopyField';
import { Button, Field, INPUT, Problem } from '@/ui/controls';
import { dateWords } from '@/ui/dates';
import { Fold } from '@/ui/Fold';
import { Select } from '@/ui/Select';
import type { GuestLink } from './guests';
import type { Reader } from './sheetReader';

interface Answer {
  readonly links?: readonly GuestLink[];
  readonly link?: string;
  readonly message?: string;
}

const DAYS = [1, 7, 30, 90] as const;

/** Somebody without an account reads this sheet by a link, until a day. */
export function GuestLinks({ reader }: { reader: Reader }) {
  const role = useWho()?.role;
  if (role === undefined || !may(role, 'lead')) return null;
  return (
    <Fold title="A link for somebody without an account" testId="guests">
      <Links reader={reader} />
    </Fold>
  );
}

function Links({ reader }: { reader: Reader }) {
  const { data } = useJob();
  const [links, setLinks] = useState<readonly GuestLink[]>([]);
  const [address, setAddress] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const url = `/api/jobs/${data.id}/guests`;
  useEffect(() => {
    void fetch(url)
      .then((response) => response.json())
      .then((answer: Answer) => setLinks(answer.links ?? []))
      .catch(() => undefined);
  }, [url]);
  const ask = async (body: object): Promise<string | null> => {
    const posted = await postJson<Answer>(url, body);
    if (posted.kind === 'away') return posted.message;
    if (!posted.ok) return posted.answer.message ?? 'It was not taken.';
    setLinks(posted.answer.links ?? []);
    setAddress(posted.answer.link ? new URL(posted.answer.link, window.location.href).href : null);
    return null;
  };
  const form = useKeptForm<{ forWhom: string; days: string }>({
    keep: `guest ${data.id}`,
    first: { days: '7' },
    take: async ({ forWhom, days }) => {
      const message = await ask({
        kind: 'make',
        sheet: reader,
        days: Number(days),
        forWhom: textOf(forWhom),
      });
      return message === null ? { ok: true } : { ok: false, message };
    },
  });
  return (
    <div className="grid gap-3">
      <form onSubmit={form.submit} className="flex flex-wrap items-end gap-2">
        <Field label="Who gets it">
          <input {...form.register('forWhom')} className={INPUT} />
        </Field>
        <Field label="Works for">
          <Select {...form.register('days')}>
            {DAYS.map((days) => (
              <option key={days} value={days}>
                {days === 1 ? 'a day' : `${days} days`}
              </option>
            ))}
          </Select>
        </Field>
        <Button type="submit" disabled={form.busy}>
          Make a link to the {reader === 'customer' ? 'customer’s sheet' : 'hand-over sheet'}
        </Button>
        {form.problem ? <Problem>{form.problem}</Problem> : null}
      </form>
      {address ? (
        <div className="border-2 border-copper bg-copper-wash p-3" data-testid="guest-link">
          <CopyField label="The link" value={address} what="link" />
          <p className="mt-1 text-sm">
            It is shown here once. Whoever has it reads this sheet and nothing else.
          </p>
        </div>
      ) : null}
      {problem ? <Problem>{problem}</Problem> : null}
      <ul className="divide-y divide-line">
        {links.map((one) => (
          <li key={one.id} className="flex flex-wrap items-center justify-between gap-2 py-1">
            <span>
              {one.forWhom || 'A link'} · {one.sheet === 'customer' ? 'customer’s sheet' : 'hand-over sheet'}{' '}
              <span className="text-soft">
                until {dateWords(one.until, 'long')}
                {one.by ? `, by ${one.by}` : ''}
              </span>
            </span>
            <Button onClick={() => void ask({ kind: 'end', link: one.id }).then(setProblem)}>End it</Button>
          </li>
        ))}
      </ul>
    </div>
  );
}
