'use client';

import { memo, useState } from 'react';
import {
  compareCosts,
  mayBridge,
  type RelayDuty,
  type RoleVerdict,
  type SwitchedPins,
  type TakenReading,
  testId,
} from '#core/diagnosis';
import type { CircuitFile } from '#core/format';
import { moneyWords, readNumber } from '#core/quantity';
import { Button, INPUT } from '@/ui/controls';
import { Fold } from '@/ui/Fold';
import { Select } from '@/ui/Select';

const SIGN = { untested: '·', good: '✓', unloaded: '○', watch: '~', bad: '✗' } as const;
const COLOUR = {
  untested: 'text-soft',
  good: 'text-good',
  unloaded: '',
  watch: 'text-caution',
  bad: 'text-bad',
} as const;
/** As a screen reader says them. */
const SPOKEN = {
  untested: 'not read',
  good: 'good',
  unloaded: 'reads right, not proved under load',
  watch: 'watch it',
  bad: 'bad',
} as const;
const PINS = ['30', '87', '85', '86'] as const;

/** Relays and outputs of the runs, each role with a verdict of its own. */
export const RelayPanel = memo(function RelayPanel({
  circuit,
  switched,
  condition,
  duties,
  failed,
  readings,
  exchanges,
  onChoose,
  onNote,
}: {
  circuit: CircuitFile;
  switched: readonly SwitchedPins[];
  /** The condition of the complaint. */
  condition: string;
  /** What every relay has to do in it when all is well. */
  duties: Readonly<Record<string, RelayDuty>>;
  /** The function that fails. */
  failed: string;
  readings: readonly TakenReading[];
  /** Whether anything may be exchanged or bridged: not on what runs unbidden. */
  exchanges: boolean;
  onChoose: (testId: string) => void;
  onNote: (words: string) => void;
}) {
  if (switched.length === 0) return null;
  const nameOf = (id: string) => circuit.parts.find((part) => part.id === id)?.name ?? id;
  return (
    <div className="mt-5 space-y-5" data-testid="relays">
      {switched.map(({ part, fixed, rows }) =>
        fixed ? (
          <section key={part} aria-label={`${nameOf(part)}, no removable relay`} data-testid="module-route">
            <h3 className="border-b-2 border-line pb-1 text-lg">{nameOf(part)}: no removable relay</h3>
            <p className="mt-1">
              It is switched inside a unit. Feed, earth and request first; the unit itself comes last.
            </p>
            <Rows rows={rows} onChoose={onChoose} />
            <Costs onNote={onNote} name={nameOf(part)} />
          </section>
        ) : (
          <section key={part} aria-label={nameOf(part)}>
            <h3 className="border-b-2 border-line pb-1 text-lg">{nameOf(part)}, pin by pin</h3>
            <Rows rows={rows} onChoose={onChoose} />
            {exchanges ? (
              <Bridge
                circuit={circuit}
                relay={part}
                duty={duties[part]!}
                condition={condition}
                readings={readings}
                onChoose={() => onChoose(testId({ kind: 'bridge', part, function: failed, condition }))}
              />
            ) : (
              <p className="mt-1 text-sm text-soft">It runs unbidden: nothing is bridged or exchanged.</p>
            )}
          </section>
        ),
      )}
    </div>
  );
});

function Rows({ rows, onChoose }: { rows: readonly RoleVerdict[]; onChoose: (id: string) => void }) {
  return (
    <ul>
      {rows.map((row) => (
        <li key={row.role + row.pin} className="border-b border-line py-1.5" data-role={row.role}>
          <div className="flex items-start justify-between gap-2">
            <span>
              <span className={`font-bold ${COLOUR[row.standing]}`}>
                <span aria-hidden="true">{SIGN[row.standing]} </span>
                {row.name}
                <span className="sr-only">: {SPOKEN[row.standing]}</span>
              </span>
              <span className="block text-[0.95rem]">{row.sentence}</span>
            </span>
            {row.test ? (
              <Button
                className="px-3 shrink-0"
                aria-label={`Read ${row.name}`}
                onClick={() => onChoose(testId(row.test!))}
              >
                Read
              </Button>
            ) : null}
          </div>
        </li>
      ))}
    </ul>
  );
}

/** A fused lead between two terminals: only the contact, only after a reading. */
function Bridge({
  circuit,
  relay,
  duty,
  condition,
  readings,
  onChoose,
}: {
  circuit: CircuitFile;
  relay: string;
  duty: RelayDuty;
  condition: string;
  readings: readonly TakenReading[];
  onChoose: () => void;
}) {
  const [from, setFrom] = useState('30');
  const [to, setTo] = useState('87');
  const answer = mayBridge(circuit, relay, from, to, duty, condition, readings);
  const select = (name: string, value: string, set: (pin: string) => void) => (
    <label className="block">
      <span className="sr-only">{name}</span>
      <Select value={value} onChange={(event) => set(event.target.value)} className="w-20">
        {PINS.map((pin) => (
          <option key={pin}>{pin}</option>
        ))}
      </Select>
    </label>
  );
  return (
    <Fold title="Bridge with a fused lead" className="mt-2">
      <div className="flex flex-wrap items-center gap-2">
        {select('Bridge from terminal', from, setFrom)}
        <span>to</span>
        {select('Bridge to terminal', to, setTo)}
        <Button disabled={!answer.allowed} onClick={onChoose}>
          To the card
        </Button>
      </div>
      <p
        role="status"
        className={`mt-1 ${answer.allowed ? '' : 'font-semibold text-caution'}`}
        data-testid="bridge-answer"
      >
        {answer.allowed ? '' : '▲ '}
        {answer.sentence}
      </p>
    </Fold>
  );
}

/** What mending would cost against the whole unit, own labour included; kept in the log. */
function Costs({ name, onNote }: { name: string; onNote: (words: string) => void }) {
  const [values, setValues] = useState({
    rate: '60',
    mendMinutes: '60',
    mendPrice: '10',
    unitMinutes: '45',
    unitPrice: '300',
  });
  const read = (key: keyof typeof values) => readNumber(values[key], { least: 0, most: 1_000_000 });
  const [wrong] = (Object.keys(values) as (keyof typeof values)[]).flatMap((key) => {
    const one = read(key);
    return one.ok ? [] : [one.message];
  });
  const number = (key: keyof typeof values) => {
    const one = read(key);
    return one.ok ? one.value : 0;
  };
  const { lines, cheapest } = compareCosts(number('rate'), [
    {
      name: 'Wire, plug, feed or request mended',
      minutes: number('mendMinutes'),
      price: number('mendPrice'),
    },
    { name: `${name} as a whole`, minutes: number('unitMinutes'), price: number('unitPrice') },
  ]);
  const field = (key: keyof typeof values, label: string) => (
    <label className="block">
      <span className="block text-sm">{label}</span>
      <input
        value={values[key]}
        inputMode="decimal"
        onChange={(event) => setValues({ ...values, [key]: event.target.value })}
        className={`${INPUT} w-24`}
      />
    </label>
  );
  return (
    <Fold title="What each way would cost" className="mt-2" testId="costs">
      <div className="flex flex-wrap gap-2">
        {field('rate', 'Rate an hour')}
        {field('mendMinutes', 'Mending, min')}
        {field('mendPrice', 'Its parts')}
        {field('unitMinutes', 'Unit, min')}
        {field('unitPrice', 'Its price')}
      </div>
      {wrong === undefined ? (
        <>
          <ul className="mt-2">
            {lines.map((line) => (
              <li key={line.name} className="flex justify-between gap-3 border-b border-line py-1">
                <span className={line.name === cheapest ? 'font-bold' : ''}>{line.name}</span>
                <span className="reading">{moneyWords(line.total)}</span>
              </li>
            ))}
          </ul>
          <Button
            className="mt-2"
            onClick={() =>
              onNote(
                `Compared at ${values.rate} an hour: ${lines.map((line) => `${line.name} ${moneyWords(line.total)}`).join('; ')}`,
              )
            }
          >
            Keep the comparison
          </Button>
        </>
      ) : (
        <p className="mt-1 text-caution">{wrong} Write 0 where there is nothing.</p>
      )}
    </Fold>
  );
}
