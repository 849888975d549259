'use client';

import { useState } from 'react';
import type { PlanFile } from '#core/format';
import { BATTERY_KIND_WORDS, BATTERY_KINDS } from '#core/limits';
import { readNumber } from '#core/quantity';
import { Check } from '@/ui/Check';
import { Choice } from '@/ui/Choice';
import { Button } from '@/ui/controls';
import { Fold } from '@/ui/Fold';
import { LiveField } from '@/ui/LiveField';

type OnChange = (plan: PlanFile) => void;

/** What the plan rests on besides its edits: facts that nobody has seen here, marks along the loom, what releases a receptacle. */
export function PlanFacts({
  plan,
  asksCharging,
  onChange,
}: {
  plan: PlanFile;
  asksCharging: boolean;
  onChange: OnChange;
}) {
  return (
    <>
      <Unverified plan={plan} onChange={onChange} />
      {asksCharging || plan.charging ? <Charging plan={plan} onChange={onChange} /> : null}
      <Fold title={`Marks along the loom${plan.loom?.length ? ` (${plan.loom.length})` : ''}`}>
        <LiveField
          name="One a line, before it is opened"
          says="keeper 120 mm, branch to the door 430 mm, end 910 mm; they print on the work order"
          rows={3}
          value={(plan.loom ?? []).join('\n')}
          onType={(text) =>
            onChange({
              ...plan,
              // Empty lines stay while they are typed; they are none in the file.
              loom: text
                .split('\n')
                .map((line) => line.slice(0, 200))
                .slice(0, 100)
                .filter((line, index, all) => line !== '' || index === all.length - 1)
                .map((line) => (line === '' ? ' ' : line)),
            })
          }
        />
      </Fold>
    </>
  );
}

function Unverified({ plan, onChange }: { plan: PlanFile; onChange: OnChange }) {
  const facts = Object.entries(plan.unverified ?? {});
  const unknown = plan.unknown ?? [];
  if (facts.length + unknown.length === 0) return null;
  return (
    <section aria-label="Not known here" className="mt-3 border-l-4 border-caution pl-3">
      <h3 className="font-semibold">Not known here</h3>
      <ul>
        {facts.map(([id, words]) => (
          <li key={id} className="flex items-center justify-between gap-2 border-b border-line py-1">
            <span>{words}</span>
            <Button
              onClick={() =>
                onChange({
                  ...plan,
                  unverified: Object.fromEntries(facts.filter(([one]) => one !== id)),
                })
              }
            >
              Seen here
            </Button>
          </li>
        ))}
        {unknown.map((words) => (
          <li key={words} className="flex items-center justify-between gap-2 border-b border-line py-1">
            <span>{words}</span>
            <Button onClick={() => onChange({ ...plan, unknown: unknown.filter((one) => one !== words) })}>
              Known now
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Charging({ plan, onChange }: { plan: PlanFile; onChange: OnChange }) {
  const [typed, setTyped] = useState({
    variant: plan.charging?.variant ?? '',
    volts: plan.charging ? String(plan.charging.chargerVolts) : '',
    battery: plan.charging?.battery ?? 'flooded',
    receptacle: plan.charging?.receptacle ?? '',
    lockedOut: plan.charging?.lockedOut ?? false,
  });
  const [problem, setProblem] = useState<string | null>(null);
  const set = (next: Partial<typeof typed>) => {
    setTyped({ ...typed, ...next });
    setProblem(null);
  };
  const take = () => {
    const volts = readNumber(typed.volts, { above: 0, most: 100, unit: 'V' });
    if (!volts.ok) return setProblem(volts.message);
    if (typed.variant.trim() === '' || typed.receptacle.trim() === '')
      return setProblem('Say which build it is, and what stands on the receptacle.');
    return onChange({
      ...plan,
      charging: {
        variant: typed.variant.trim().slice(0, 120),
        chargerVolts: volts.value,
        battery: typed.battery,
        receptacle: typed.receptacle.trim().slice(0, 200),
        lockedOut: typed.lockedOut,
      },
    });
  };
  return (
    <section aria-label="What releases the receptacle" className="mt-3 border-l-4 border-copper pl-3">
      <h3 className="font-semibold">What releases the receptacle</h3>
      <div className="grid gap-2 sm:grid-cols-2">
        <LiveField
          name="Which build"
          says="two blocks, early loom"
          value={typed.variant}
          onType={(variant) => set({ variant })}
        />
        <LiveField
          name="Charger"
          unit="V"
          says="by the maker of the battery"
          value={typed.volts}
          problem={problem}
          decimal
          onType={(volts) => set({ volts })}
        />
        <LiveField
          name="On the receptacle stands"
          says="what may be plugged in"
          value={typed.receptacle}
          onType={(receptacle) => set({ receptacle })}
        />
      </div>
      <Choice
        legend="Battery"
        options={BATTERY_KINDS.map((id) => ({ id, name: BATTERY_KIND_WORDS[id] }))}
        chosen={typed.battery}
        onChoose={(battery) => set({ battery: battery as typeof typed.battery })}
      />
      <Check checked={typed.lockedOut} onChange={(lockedOut) => set({ lockedOut })}>
        the charger that was there is locked out at its plug
      </Check>
      <Button className="mt-2" onClick={take}>
        Say it
      </Button>
    </section>
  );
}
