'use client';

import { BOUNDS, type Panel, type Slot } from '#core/format';
import { SLOT_FAMILIES, SLOT_STATES } from '#core/limits';
import { auditSlot, type SlotStateEntry, stateProblem, withStates } from '#core/panel';
import { readNumber } from '#core/quantity';
import { useJob } from '@/job/JobProvider';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Button, Field, INPUT, Problem } from '@/ui/controls';
import { Fold } from '@/ui/Fold';
import { Select } from '@/ui/Select';

/** What is in a slot, how that is known, and what was written of it before. */
export function SlotStateForm({
  panel,
  slot,
  nominalVolts,
}: {
  panel: Panel;
  slot: Slot;
  nominalVolts: number;
}) {
  const { data, job, record } = useJob();
  const entries = job.slotStates.filter((one) => one.panel === panel.id && one.slot === slot.id);
  const now = withStates(panel, entries).slots.find((one) => one.id === slot.id) ?? slot;
  const form = useKeptForm<{ state: string; rating: string; family: string; evidence: string }>({
    keep: `slot ${data.id} ${panel.id} ${slot.id}`,
    first: { state: now.state, family: slot.family },
    take: (values) => {
      const evidence = textOf(values.evidence);
      const state = SLOT_STATES.find((one) => one === values.state) ?? 'unknown';
      const wrong = stateProblem(state, evidence);
      if (wrong) return { ok: false, message: wrong, field: 'evidence' };
      const typed = textOf(values.rating);
      const rating = typed === '' ? null : readNumber(typed, BOUNDS.foundAmps);
      if (rating && !rating.ok) {
        return { ok: false, message: `The rating that was found: ${rating.message}`, field: 'rating' };
      }
      const family = SLOT_FAMILIES.find((one) => one === values.family);
      const found = {
        ...(rating ? { ratingAmps: rating.value } : {}),
        ...(family && family !== slot.family ? { family } : {}),
      };
      return record({
        kind: 'slot-state',
        panel: panel.id,
        slot: slot.id,
        state,
        ...(Object.keys(found).length > 0 ? { found } : {}),
        evidence,
      });
    },
  });
  return (
    <Fold title={`What is in it: ${now.state.replace('-', ' ')}`} testId="slot-state-form">
      {auditSlot(now, nominalVolts).map((item) => (
        <p key={item.words} className={item.danger ? 'font-semibold text-bad' : ''} data-testid="slot-audit">
          {item.danger ? '▲ ' : ''}
          {item.words}
        </p>
      ))}
      <form onSubmit={form.submit} className="mt-2 grid gap-3">
        <div className="grid grid-cols-2 gap-3">
          <Field label="State">
            <Select {...form.register('state')}>
              {SLOT_STATES.map((one) => (
                <option key={one} value={one}>
                  {one.replace('-', ' ')}
                </option>
              ))}
            </Select>
          </Field>
          <Field label="Rating found, A">
            <input {...form.register('rating')} inputMode="decimal" className={INPUT} />
          </Field>
        </div>
        <Field label="Family found">
          <Select {...form.register('family')}>
            {SLOT_FAMILIES.map((one) => (
              <option key={one} value={one}>
                {one.replace(/-/g, ' ')}
              </option>
            ))}
          </Select>
        </Field>
        <Field label="How that is known">
          <input {...form.register('evidence')} className={INPUT} placeholder="seen, build list, traced …" />
        </Field>
        {form.problem ? <Problem>{form.problem}</Problem> : null}
        <div>
          <Button type="submit">Record the state</Button>
        </div>
      </form>
      <StateHistory entries={entries} />
    </Fold>
  );
}

function StateHistory({ entries }: { entries: readonly SlotStateEntry[] }) {
  if (entries.length === 0) return null;
  return (
    <ol className="mt-2 text-sm text-soft" aria-label="History of this slot">
      {entries
        .slice()
        .reverse()
        .map((entry) => (
          <li key={entry.id}>
            {entry.state.replace('-', ' ')}
            {entry.found?.ratingAmps === undefined ? '' : `, ${entry.found.ratingAmps} A found`}:{' '}
            {entry.evidence} — {entry.person}
          </li>
        ))}
    </ol>
  );
}
