'use client';

import { useState } from 'react';
import { NOMINAL_VOLTS } from '#core/format';
import { Choice } from '@/ui/Choice';
import { INPUT } from '@/ui/controls';
import { Fold } from '@/ui/Fold';

/** Nominal voltages that a person taps, or that follow from the blocks of the battery. */
export function VoltsChoice({
  chosen,
  onChoose,
}: {
  chosen: number | null;
  onChoose: (volts: (typeof NOMINAL_VOLTS)[number]) => void;
}) {
  const [blocks, setBlocks] = useState('');
  const [each, setEach] = useState('');
  const count = Number(blocks);
  const volts = Number(each.replace(',', '.'));
  const sum = count > 0 && volts > 0 ? count * volts : null;
  const nominal = NOMINAL_VOLTS.find((one) => one === sum);
  return (
    <div>
      <Choice
        legend="Nominal voltage"
        options={NOMINAL_VOLTS.map((one) => ({ id: String(one), name: `${one} V` }))}
        chosen={chosen === null ? null : String(chosen)}
        onChoose={(id) => {
          const one = NOMINAL_VOLTS.find((volts) => String(volts) === id);
          if (one !== undefined) onChoose(one);
        }}
      />
      <Fold title="From the blocks of its battery">
        <div className="flex flex-wrap items-end gap-2">
          <label className="block">
            <span className="block text-sm font-semibold">Blocks in series</span>
            <input
              value={blocks}
              inputMode="numeric"
              onChange={(event) => setBlocks(event.target.value)}
              className={`${INPUT} w-28`}
            />
          </label>
          <span aria-hidden="true" className="pb-3">
            ×
          </span>
          <label className="block">
            <span className="block text-sm font-semibold">Volts of each</span>
            <input
              value={each}
              inputMode="decimal"
              onChange={(event) => {
                setEach(event.target.value);
                const all = Number(blocks) * Number(event.target.value.replace(',', '.'));
                const fits = NOMINAL_VOLTS.find((one) => one === all);
                if (fits !== undefined) onChoose(fits);
              }}
              className={`${INPUT} w-28`}
            />
          </label>
          <p role="status" className="pb-3">
            {sum === null
              ? ''
              : nominal === undefined
                ? `${sum} V: no nominal voltage that is known here. Count again, or read the label.`
                : `${sum} V`}
          </p>
        </div>
      </Fold>
    </div>
  );
}
