'use client';

import { Ellipsis } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { ROLES, type Role } from '#core/format';
import { postJson } from '@/sync/post';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { CopyField } from '@/ui/CopyField';
import { Button, Field, INPUT, Problem } from '@/ui/controls';
import { dateWords } from '@/ui/dates';
import { Menu } from '@/ui/Menu';
import { newId } from '@/ui/newId';
import { Select } from '@/ui/Select';
import { useSay } from '@/ui/Toast';
import type { Person } from './people';
import { ROLE_MEANS, ROLE_WORDS } from './words';

interface Made {
  readonly link?: string;
  readonly message?: string;
}

interface NewLink {
  readonly person: string;
  readonly address: string;
}

/** Who belongs to the shop, as an owner keeps it: links that let people in, roles, who has left. */
export function PeopleSection({ people, self }: { people: readonly Person[]; self: string }) {
  const router = useRouter();
  const say = useSay();
  const [problem, setProblem] = useState<string | null>(null);
  const [link, setLink] = useState<NewLink | null>(null);
  const ask = async (name: string, body: object, done: string) => {
    const posted = await postJson<Made>('/api/people', body);
    if (posted.kind === 'away') return posted.message;
    if (!posted.ok) return posted.answer.message ?? 'It was not taken.';
    const { link: made } = posted.answer;
    setLink(made ? { person: name, address: new URL(made, window.location.href).href } : null);
    setProblem(null);
    say(done);
    router.refresh();
    return null;
  };
  const act = async (name: string, body: object, done: string) => setProblem(await ask(name, body, done));
  return (
    <section aria-labelledby="people" className="mt-8" data-testid="people">
      <h2 id="people" className="border-b-2 border-line pb-2 text-xl">
        People
      </h2>
      {link ? <LinkMade link={link} onDone={() => setLink(null)} /> : null}
      {problem ? <Problem>{problem}</Problem> : null}
      <ul className="divide-y divide-line">
        {people.map((person) => (
          <li key={person.id} className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1 py-2">
            <div>
              <p className="font-semibold">
                {person.name}
                {person.id === self ? <span className="font-normal text-soft"> (you)</span> : null}{' '}
                <span className="font-normal text-soft">· {ROLE_WORDS[person.role]}</span>
              </p>
              <p className="text-sm text-soft">{standing(person)}</p>
            </div>
            <Menu
              name={`What to do with ${person.name}`}
              icon={<Ellipsis aria-hidden="true" className="size-6" />}
              items={actions(person).map(({ name, body, done }) => ({
                name,
                onChoose: () => void act(person.name, body, done),
              }))}
            />
          </li>
        ))}
      </ul>
      <AddPerson
        add={(name, role) => ask(name, { kind: 'add', id: newId(), name, role }, `${name} is added.`)}
      />
    </section>
  );
}

function standing({ leftAt, signIn, sessions, lastIn, linkUntil, hasCode }: Person): string {
  if (leftAt) return `Left ${dateWords(leftAt, 'long')}. What was done stays under the name.`;
  const parts = [
    signIn === null ? 'No account yet' : `Signs in as ${signIn.endsWith('.invalid') ? 'a name' : signIn}`,
    sessions > 0 && lastIn
      ? `${sessions === 1 ? 'one session' : `${sessions} sessions`} open, last begun ${dateWords(lastIn, 'short')}`
      : null,
    hasCode ? 'has a short code' : null,
    linkUntil ? `a link is open until ${dateWords(linkUntil, 'long')}` : null,
  ];
  return parts.filter((one) => one !== null).join(' · ');
}

function actions(person: Person): { name: string; body: object; done: string }[] {
  const { id, name } = person;
  if (person.leftAt)
    return [{ name: 'Has come back', body: { kind: 'return', person: id }, done: `${name} is back.` }];
  return [
    {
      name: person.signIn === null ? 'A link to come in' : 'A link for a new password',
      body: { kind: 'link', person: id },
      done: 'The link is made. The one before leads nowhere now.',
    },
    ...ROLES.filter((role) => role !== person.role).map((role) => ({
      name: `Make ${ROLE_WORDS[role]}`,
      body: { kind: 'role', person: id, role },
      done: `${name} is ${ROLE_WORDS[role]} now.`,
    })),
    {
      name: 'Has left the shop',
      body: { kind: 'leave', person: id },
      done: `${name} has left, and is signed out everywhere.`,
    },
  ];
}

/** The address of a link is shown once; only its hash is kept. */
function LinkMade({ link, onDone }: { link: NewLink; onDone: () => void }) {
  return (
    <div className="mt-3 border-2 border-copper bg-copper-wash p-3" data-testid="link-made">
      <CopyField label={`For ${link.person} alone; it works once`} value={link.address} what="link" />
      <p className="my-2 text-sm">
        It is shown here and nowhere again. Whoever has it comes in as {link.person}.
      </p>
      <Button onClick={onDone}>Done</Button>
    </div>
  );
}

function AddPerson({ add }: { add: (name: string, role: Role) => Promise<string | null> }) {
  const form = useKeptForm<{ name: string; role: Role }>({
    keep: 'new person',
    first: { role: 'technician' },
    take: async (values) => {
      const name = textOf(values.name);
      if (name === '') return { ok: false, message: 'Say who it is.', field: 'name' };
      const problem = await add(name, values.role);
      return problem === null ? { ok: true } : { ok: false, message: problem };
    },
  });
  return (
    <form onSubmit={form.submit} className="mt-3 flex flex-wrap items-end gap-2">
      <Field label="Somebody new">
        <input {...form.register('name')} className={`${INPUT} w-64`} />
      </Field>
      <Field label="As">
        <Select {...form.register('role')}>
          {ROLES.map((role) => (
            <option key={role} value={role}>
              {ROLE_WORDS[role]}
            </option>
          ))}
        </Select>
      </Field>
      <Button type="submit" disabled={form.busy}>
        Add, and make a link
      </Button>
      <p className="w-full text-sm text-soft">{ROLE_MEANS[form.watch('role') ?? 'technician']}</p>
      {form.problem ? <Problem>{form.problem}</Problem> : null}
    </form>
  );
}
