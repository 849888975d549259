'use client';

import { BOUNDS } from '#core/format';
import { openedFuses } from '#core/log';
import { readNumber } from '#core/quantity';
import { useJob } from '@/job/JobProvider';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Button, Field, INPUT, Problem } from '@/ui/controls';

/** What was plugged in: what it draws, what it took, and that nothing is fitted before it is dealt with. */
export function ApplianceNotice() {
  const { job, record, appliance } = useJob();
  if (!appliance) return null;
  const declared = job.complaint?.appliance !== undefined || job.pluggedIn?.appliance === true;
  return (
    <div
      className={`mb-3 border-l-4 px-3 py-2 ${
        job.applianceSetAside ? 'border-line' : 'border-caution bg-caution-wash'
      }`}
      data-testid="appliance"
    >
      <div className="flex flex-wrap items-center justify-between gap-2">
        <p className="max-w-prose">
          <strong>What was plugged in.</strong> {appliance.sentence}
        </p>
        {appliance.asks ? (
          <Button onClick={() => record({ kind: 'plugged-in', appliance: false })}>
            Nothing was plugged in
          </Button>
        ) : declared && !job.applianceSetAside ? (
          <SetAside />
        ) : null}
      </div>
      {appliance.asks ? <WhatItWas /> : null}
    </div>
  );
}

/** Set aside with its name, and with all fuses that it took: one case. */
function SetAside() {
  const { data, job, circuit, nominalVolts, record } = useJob();
  const fuses = openedFuses(job, circuit, data.panelSet, nominalVolts ?? 12).map(({ name }) => name);
  const said = job.complaint?.pluggedIn;
  const name = said && said !== 'nothing' ? said : 'The appliance';
  return (
    <Button
      onClick={() =>
        record({
          kind: 'appliance-set-aside',
          words: `${name}, unplugged and put aside`,
          ...(fuses.length > 0 ? { fuses } : {}),
        })
      }
    >
      It is set aside
    </Button>
  );
}

function WhatItWas() {
  const { data, record } = useJob();
  const form = useKeptForm<{ watts: string }>({
    keep: `plugged in ${data.id}`,
    take: ({ watts }) => {
      const typed = textOf(watts);
      if (typed === '') return record({ kind: 'plugged-in', appliance: true });
      const read = readNumber(typed, BOUNDS.applianceWatts);
      if (!read.ok)
        return { ok: false, message: `Its watts: ${read.message} They may stay empty.`, field: 'watts' };
      return record({ kind: 'plugged-in', appliance: true, watts: read.value });
    },
  });
  return (
    <form onSubmit={form.submit} className="mt-2 flex flex-wrap items-end gap-2">
      <Field label="Its watts, from its plate" hint="May stay empty">
        <input {...form.register('watts')} inputMode="decimal" className={`${INPUT} w-40`} />
      </Field>
      <Button type="submit">A portable appliance was</Button>
      {form.problem ? <Problem>{form.problem}</Problem> : null}
    </form>
  );
}
