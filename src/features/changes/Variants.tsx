'use client';

import { useState } from 'react';
import type { PlanFile } from '#core/format';
import { Choice } from '@/ui/Choice';
import { Button } from '@/ui/controls';
import { Fold } from '@/ui/Fold';
import { LiveField } from '@/ui/LiveField';
import { Select } from '@/ui/Select';

/** Two builds of one model, or two ways of doing it: one is chosen, and the steps of the others are hidden with the reason. */
export function Variants({ plan, onChange }: { plan: PlanFile; onChange: (plan: PlanFile) => void }) {
  const [names, setNames] = useState({ one: '', other: '' });
  const { variants = [], chosen } = plan;
  if (variants.length === 0) {
    return (
      <Fold title="Two builds, or two ways of doing it">
        <div className="grid gap-2 sm:grid-cols-2">
          <LiveField
            name="One"
            says="early loom"
            value={names.one}
            onType={(one) => setNames({ ...names, one })}
          />
          <LiveField
            name="The other"
            says="late loom"
            value={names.other}
            onType={(other) => setNames({ ...names, other })}
          />
        </div>
        <Button
          disabled={names.one.trim() === '' || names.other.trim() === ''}
          onClick={() =>
            onChange({
              ...plan,
              variants: [
                { id: 'one', name: names.one.trim() },
                { id: 'other', name: names.other.trim() },
              ],
            })
          }
        >
          Tell them apart
        </Button>
      </Fold>
    );
  }
  return (
    <div className="mt-3">
      <Choice
        legend="Which one is in front of you"
        options={variants}
        chosen={chosen ?? null}
        onChoose={(id) => onChange({ ...plan, chosen: id })}
      />
      <Fold title="Which step belongs to which">
        <ul>
          {plan.edits.map((edit, index) => (
            <li key={edit.id} className="flex items-center gap-2 border-b border-line py-1">
              <span className="flex-1">
                {index + 1}. {edit.kind.replace(/-/g, ' ')}
              </span>
              <span className="w-44">
                <Select
                  aria-label={`Step ${index + 1} belongs to`}
                  value={edit.variant ?? ''}
                  onChange={({ target }) =>
                    onChange({
                      ...plan,
                      edits: plan.edits.map((one) => {
                        if (one !== edit) return one;
                        const { variant: _was, ...rest } = one;
                        return (
                          target.value === '' ? rest : { ...rest, variant: target.value }
                        ) as typeof one;
                      }),
                    })
                  }
                >
                  <option value="">both</option>
                  {variants.map(({ id, name }) => (
                    <option key={id} value={id}>
                      {name}
                    </option>
                  ))}
                </Select>
              </span>
            </li>
          ))}
        </ul>
      </Fold>
    </div>
  );
}
