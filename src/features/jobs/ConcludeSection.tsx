'use client';

import { type FormEvent, useRef, useState } from 'react';
import { testInLog } from '#core/diagnosis';
import { valueWords } from '#core/log';
import { useFormDraft } from '@/sync/useFormDraft';
import { Button, ButtonLink, Field, INPUT, Problem, Section } from '@/ui/controls';
import { useJob } from './JobProvider';

const STRENGTH = {
  proved: 'Proved: readings at different spots and in different set-ups agree.',
  supported: 'Supported: likely, but one more independent reading would prove it.',
  provisional: 'Provisional: other explanations are still open.',
} as const;

const CAUSES = [
  { value: 'proved', word: 'Proved' },
  { value: 'suspected', word: 'Suspected' },
  { value: 'unknown', word: 'Unknown' },
] as const;

export function ConcludeSection() {
  const { data, job, circuit, diagnosis, record } = useJob();
  const [problem, setProblem] = useState<string | null>(null);
  const [editing, setEditing] = useState(false);
  const form = useRef<HTMLFormElement>(null);
  /** Found by looking, before the readings point anywhere. */
  const [seen, setSeen] = useState(false);
  const { assessment } = diagnosis;
  const lead = !seen && assessment?.verdict.suspect ? assessment.suspects[0] : undefined;
  const strength = (lead && assessment?.verdict.strength) || 'provisional';
  const found = job.found;
  const evidence = (lead ? (assessment?.verdict.evidence ?? []) : []).flatMap((id) => {
    const entry = job.readings.find((one) => one.event.id === id);
    return entry ? [`${testInLog(circuit, entry.body.test)}: ${valueWords(entry.body.value)}`] : [];
  });
  const open = (found === null || editing) && (lead !== undefined || seen);
  const forget = useFormDraft(`conclude ${data.id} ${open}`, form);
  const save = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const fault = String(form.get('fault') ?? '').trim();
    const cause = CAUSES.find((one) => one.value === form.get('cause'))?.value;
    const causeWords = String(form.get('causeWords') ?? '').trim();
    if (fault === '') return setProblem('Say what was found.');
    if (!cause) return setProblem('Say how sure the cause is: proved, suspected or unknown.');
    if (cause !== 'unknown' && causeWords === '')
      return setProblem('Say what caused it, or choose “Unknown”.');
    const likeliest = lead?.forms[0]?.fault;
    const kind = circuit?.parts.find((part) => part.id === likeliest?.part)?.kind;
    const faultForm = likeliest && kind ? { part: likeliest.part, kind, mode: likeliest.mode } : null;
    const recorded = record({
      kind: 'found',
      parts: lead?.parts.length ? [...lead.parts] : [String(form.get('part') || 'unknown-part')],
      fault,
      ...(faultForm ? { form: faultForm } : {}),
      strength,
      cause,
      causeWords,
      evidence: lead ? [...(assessment?.verdict.evidence ?? [])] : [],
    });
    setProblem(recorded.ok ? null : recorded.message);
    if (!recorded.ok) return;
    forget();
    setEditing(false);
  };
  return (
    <Section id="conclude" number={4} title="Conclude" done={found !== null}>
      {found && !editing ? (
        <div className="flex flex-wrap items-start justify-between gap-3">
          <div>
            <p className="text-lg font-semibold">{found.fault}</p>
            <p>{STRENGTH[found.strength]}</p>
            <p className="text-soft">
              Cause {found.cause}
              {found.causeWords ? `: ${found.causeWords}` : ''}
            </p>
          </div>
          <Button onClick={() => setEditing(true)}>Change</Button>
        </div>
      ) : !lead && !seen ? (
        <p className="flex flex-wrap items-center gap-3">
          The readings do not point at one fault yet.
          <ButtonLink href={`/jobs/${data.id}/trace`}>Go on with the trace</ButtonLink>
          <Button onClick={() => setSeen(true)}>It was found by looking</Button>
        </p>
      ) : (
        <form ref={form} onSubmit={save} className="grid max-w-3xl gap-4">
          <div className="border-l-4 border-copper pl-3">
            {lead ? (
              <p className="text-lg font-bold">{lead.title}</p>
            ) : (
              <Field label="At which part">
                <select name="part" defaultValue={found?.parts[0] ?? ''} className={INPUT}>
                  <option value="">not in this map</option>
                  {circuit?.parts.map((part) => (
                    <option key={part.id} value={part.id}>
                      {part.name}
                    </option>
                  ))}
                </select>
              </Field>
            )}
            <p>{lead ? STRENGTH[strength] : 'Provisional: seen, and not electrically proved.'}</p>
            {evidence.length > 0 ? (
              <ul className="mt-1 text-soft">
                {evidence.map((line) => (
                  <li key={line}>· {line}</li>
                ))}
              </ul>
            ) : null}
          </div>
          <Field label="What was found">
            <input name="fault" defaultValue={found?.fault ?? lead?.forms[0]?.words} className={INPUT} />
          </Field>
          <fieldset>
            <legend className="mb-1 font-semibold">Why it happened</legend>
            <div className="flex flex-wrap gap-2">
              {CAUSES.map((one) => (
                <label
                  key={one.value}
                  className="flex min-h-11 items-center gap-2 rounded-md border-2 border-line bg-sheet px-3 has-checked:border-copper has-checked:bg-copper-wash has-checked:font-bold"
                >
                  <input
                    type="radio"
                    name="cause"
                    value={one.value}
                    defaultChecked={found?.cause === one.value}
                    className="size-5 accent-(--copper)"
                  />
                  {one.word}
                </label>
              ))}
            </div>
          </fieldset>
          <Field label="The cause in words" hint="Chafed at a clip, water in the plug, load too large, age …">
            <input name="causeWords" defaultValue={found?.causeWords} className={INPUT} />
          </Field>
          {problem ? <Problem>{problem}</Problem> : null}
          <div>
            <Button look="primary" type="submit">
              Record what was found
            </Button>
            {lead ? (
              <Button look="quiet" onClick={() => setSeen(true)}>
                It was something else
              </Button>
            ) : null}
          </div>
        </form>
      )}
    </Section>
  );
}
