'use client';

import { useState } from 'react';
import { type Assessment, testInLog } from '#core/diagnosis';
import { OPENED_BY } from '#core/format';
import { causeReopened, OPENED_BY_WORDS, valueWords } from '#core/log';
import { useDiagnosis, useJob } from '@/job/JobProvider';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Choice } from '@/ui/Choice';
import { Button, ButtonLink, Field, INPUT, Problem, Section } from '@/ui/controls';
import { Select } from '@/ui/Select';
import { FuseCurrents } from './FuseCurrents';

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
type Cause = (typeof CAUSES)[number]['value'];

export function ConcludeSection() {
  const { data, job, circuit } = useJob();
  const diagnosis = useDiagnosis();
  const [editing, setEditing] = useState(false);
  /** Found by looking, before the readings point anywhere. */
  const [seen, setSeen] = useState(false);
  const { assessment } = diagnosis;
  const lead = !seen && assessment?.verdict.suspect ? assessment.suspects[0] : undefined;
  const found = job.found;
  const again = causeReopened(job, circuit);
  return (
    <Section id="conclude" number={4} title="Conclude" done={found !== null && again.length === 0}>
      {found && !editing ? (
        <div className="flex flex-wrap items-start justify-between gap-3">
          <div>
            <p className="text-lg font-semibold">{found.fault}</p>
            <p>{STRENGTH[found.strength]}</p>
            <p className="text-soft">
              Cause {found.cause}
              {found.causeWords ? `: ${found.causeWords}` : ''}
            </p>
            {found.openedBy ? (
              <p className="text-soft">The fuse was opened by {OPENED_BY_WORDS[found.openedBy]}.</p>
            ) : null}
            {again.map((words) => (
              <p key={words} className="mt-2 border-l-4 border-bad px-3 py-1" data-testid="cause-open">
                <strong className="text-bad">The cause is open again.</strong> {words}.
              </p>
            ))}
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
        <ConcludeForm lead={lead} onSeen={() => setSeen(true)} onDone={() => setEditing(false)} />
      )}
      {found ? <FuseCurrents /> : null}
    </Section>
  );
}

/** What was found, why, and how sure that is; with a leading suspect of the readings, or by looking alone. */
function ConcludeForm({
  lead,
  onSeen,
  onDone,
}: {
  lead: Assessment['suspects'][number] | undefined;
  onSeen: () => void;
  onDone: () => void;
}) {
  const { data, job, circuit, record } = useJob();
  const diagnosis = useDiagnosis();
  const verdict = lead ? diagnosis.assessment?.verdict : undefined;
  const strength = verdict?.strength || 'provisional';
  const found = job.found;
  const evidence = (verdict?.evidence ?? []).flatMap((id) => {
    const entry = job.readings.find((one) => one.event.id === id);
    return entry ? [`${testInLog(circuit, entry.body.test)}: ${valueWords(entry.body.value)}`] : [];
  });
  /** Whether what was found is a fuse: the lead's part, or the one that was chosen. */
  const isFuse = (chosen: string | undefined) => {
    const parts = lead ? lead.parts : [chosen];
    return parts.some((id) => circuit?.parts.some((part) => part.id === id && part.kind === 'fuse'));
  };
  const form = useKeptForm<{
    part: string;
    fault: string;
    cause: Cause | null;
    causeWords: string;
    openedBy: string;
  }>({
    keep: `conclude ${data.id}`,
    first: {
      part: found?.parts[0] ?? '',
      fault: found?.fault ?? lead?.forms[0]?.words ?? '',
      cause: found?.cause ?? null,
      causeWords: found?.causeWords ?? '',
      openedBy: found?.openedBy ?? '',
    },
    take: (values) => {
      const fault = textOf(values.fault);
      const causeWords = textOf(values.causeWords);
      const cause = CAUSES.find((one) => one.value === values.cause)?.value;
      if (fault === '') return { ok: false, message: 'Say what was found.', field: 'fault' };
      if (!cause) {
        return {
          ok: false,
          message: 'Say how sure the cause is: proved, suspected or unknown.',
          field: 'cause',
        };
      }
      if (cause !== 'unknown' && causeWords === '') {
        return { ok: false, message: 'Say what caused it, or choose “Unknown”.', field: 'causeWords' };
      }
      const openedBy = OPENED_BY.find((one) => one === values.openedBy);
      if (isFuse(values.part) && !openedBy) {
        return {
          ok: false,
          message: 'A fuse alone is no cause: say what made it open, or that it is not known.',
          field: 'openedBy',
        };
      }
      if (openedBy === 'unknown' && cause === 'proved') {
        return {
          ok: false,
          message: 'While it is not known what opened the fuse, its cause is not proved.',
          field: 'cause',
        };
      }
      const likeliest = lead?.forms[0]?.fault;
      const kind = circuit?.parts.find((part) => part.id === likeliest?.part)?.kind;
      const faultForm = likeliest && kind ? { part: likeliest.part, kind, mode: likeliest.mode } : null;
      const recorded = record({
        kind: 'found',
        parts: lead?.parts.length ? [...lead.parts] : [values.part || 'unknown-part'],
        fault,
        ...(faultForm ? { form: faultForm } : {}),
        strength,
        cause,
        causeWords,
        ...(isFuse(values.part) && openedBy ? { openedBy } : {}),
        evidence: [...(verdict?.evidence ?? [])],
      });
      if (recorded.ok) onDone();
      return recorded;
    },
  });
  return (
    <form onSubmit={form.submit} className="grid max-w-3xl gap-4">
      <div className="border-l-4 border-copper pl-3">
        {lead ? (
          <p className="text-lg font-bold">{lead.title}</p>
        ) : (
          <Field label="At which part">
            <Select {...form.register('part')}>
              <option value="">not in this map</option>
              {circuit?.parts.map((part) => (
                <option key={part.id} value={part.id}>
                  {part.name}
                </option>
              ))}
            </Select>
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
        <input {...form.register('fault')} className={INPUT} />
      </Field>
      <Choice
        legend="Why it happened"
        options={CAUSES.map(({ value, word }) => ({ id: value, name: word }))}
        chosen={form.watch('cause') ?? null}
        onChoose={(cause) =>
          form.setValue('cause', cause as (typeof CAUSES)[number]['value'], { shouldDirty: true })
        }
      />
      <Field label="The cause in words" hint="Chafed at a clip, water in the plug, load too large, age …">
        <input {...form.register('causeWords')} className={INPUT} />
      </Field>
      {isFuse(form.watch('part')) ? (
        <Choice
          legend="What made the fuse open"
          options={OPENED_BY.map((id) => ({
            id,
            name: `${OPENED_BY_WORDS[id][0]!.toUpperCase()}${OPENED_BY_WORDS[id].slice(1)}`,
          }))}
          chosen={form.watch('openedBy') || null}
          onChoose={(id) => form.setValue('openedBy', id, { shouldDirty: true })}
        />
      ) : null}
      {form.problem ? <Problem>{form.problem}</Problem> : null}
      <div>
        <Button look="primary" type="submit">
          Record what was found
        </Button>
        {lead ? (
          <Button look="quiet" onClick={onSeen}>
            It was something else
          </Button>
        ) : null}
      </div>
    </form>
  );
}
