'use client';

import { useState } from 'react';
import type { Slot } from '#core/format';
import { colourOf, SLOT_FAMILIES, SLOT_FEEDS, SLOT_STATES, SLOT_TYPES, spokenWord } from '#core/limits';
import { disputedFrom, disputedText, stateProblem, wantsProof } from '#core/panel';
import { readNumber } from '#core/quantity';
import { Check } from '@/ui/Check';
import { Button, INPUT, Problem } from '@/ui/controls';
import { type FieldDrafts, Labelled, ReadField, readList, readText } from '@/ui/ReadField';
import { Select } from '@/ui/Select';

const SOURCES: readonly NonNullable<Slot['source']>[] = ['lid', 'manual', 'measured', 'sibling-vehicle'];
/** Everything that is known of one slot; each field is a step of its own when it is left. */
export function SlotForm({
  slot,
  drafts,
  onChange,
}: {
  slot: Slot;
  drafts: FieldDrafts;
  onChange: (fields: Partial<Omit<Slot, 'id'>>) => void;
}) {
  const text = (name: 'number' | 'label' | 'meaning' | 'colour' | 'applies') => (
    <ReadField
      drafts={drafts}
      label={capital(name)}
      text={slot[name] ?? ''}
      read={readText(name === 'number' ? 'A slot has a number or another mark.' : undefined)}
      onRead={(value) => onChange({ [name]: value === '' && name !== 'label' ? undefined : value })}
    />
  );
  const choice = <K extends 'type' | 'family' | 'state' | 'feed' | 'source' | 'confidence'>(
    name: K,
    options: readonly NonNullable<Slot[K]>[],
  ) => (
    <Labelled name={capital(name)}>
      <Select
        value={slot[name] ?? ''}
        onChange={(event) => onChange({ [name]: event.target.value || undefined } as Partial<Slot>)}
      >
        {name === 'feed' || name === 'source' || name === 'confidence' ? (
          <option value="">not said</option>
        ) : null}
        {options.map((one) => (
          <option key={one} value={one}>
            {spokenWord(one)}
          </option>
        ))}
      </Select>
    </Labelled>
  );
  const list = (name: 'functions' | 'synonyms') => (
    <ReadField
      drafts={drafts}
      label={name === 'functions' ? 'Serves, one a line' : 'Also called, one a line'}
      rows={2}
      text={(slot[name] ?? []).join('\n')}
      read={readList}
      onRead={(values) => onChange({ [name]: values.length > 0 ? [...values] : undefined })}
    />
  );
  return (
    <section aria-label={`${slot.type} ${slot.number}`} data-testid="slot-form">
      <h2 className="mb-2 border-b-2 border-line pb-1 text-lg">
        {slot.type} {slot.number}
      </h2>
      <div className="grid grid-cols-2 gap-3">
        {choice('type', SLOT_TYPES)}
        {text('number')}
        {text('label')}
        {text('meaning')}
        <ReadField
          drafts={drafts}
          label="Rating, ampere"
          text={slot.ratingAmps === undefined ? '' : String(slot.ratingAmps)}
          read={(typed) =>
            typed.trim() === ''
              ? { ok: true, value: undefined }
              : readNumber(typed, { above: 0, most: 1000, unit: 'A' })
          }
          onRead={(ratingAmps) => {
            const colour = ratingAmps === undefined ? null : colourOf(slot.family, ratingAmps);
            onChange({ ratingAmps, ...(colour ? { colour } : {}) });
          }}
          decimal
        />
        {text('colour')}
        {choice('family', SLOT_FAMILIES)}
        <StateChoice slot={slot} drafts={drafts} onChange={onChange} />
        {choice('feed', SLOT_FEEDS)}
        {choice('source', SOURCES)}
        {choice('confidence', ['sure', 'likely', 'doubtful'])}
        <div className="col-span-2">{list('functions')}</div>
        <div className="col-span-2">{list('synonyms')}</div>
        {(['width', 'height', 'x', 'y'] as const).map((name) => (
          <ReadField
            drafts={drafts}
            key={name}
            label={
              name === 'x' ? 'From the left, mm' : name === 'y' ? 'From the top, mm' : `${capital(name)}, mm`
            }
            text={String(slot[name])}
            read={(typed) =>
              readNumber(typed, { least: name === 'x' || name === 'y' ? 0 : 0.5, most: 500, unit: 'mm' })
            }
            onRead={(value) => onChange({ [name]: value })}
            decimal
          />
        ))}
        <div className="col-span-2">
          <ReadField
            drafts={drafts}
            label="Another source says, one a line as source: words"
            rows={2}
            text={disputedText(slot.disputed)}
            read={disputedFrom}
            onRead={(disputed) => onChange({ disputed: disputed.length > 0 ? [...disputed] : undefined })}
          />
        </div>
        {text('applies')}
        <Check
          checked={slot.confirmed ?? false}
          onChange={(confirmed) => onChange({ confirmed })}
          className="self-end"
        >
          Proved here, by effect or by trace
        </Check>
      </div>
    </section>
  );
}

const STATE_DRAFT = 'How its state is known';

/** What is in the slot. What nobody can see from the front is taken only with how it is known. */
function StateChoice({
  slot,
  drafts,
  onChange,
}: {
  slot: Slot;
  drafts: FieldDrafts;
  onChange: (fields: Partial<Omit<Slot, 'id'>>) => void;
}) {
  // Begun and not kept yet: the state on the first line, how it is known on the second.
  const [begun] = useState(() => drafts.read(STATE_DRAFT)?.split('\n') ?? []);
  const [wanted, setWanted] = useState(SLOT_STATES.find((one) => one === begun[0]) ?? null);
  const [evidence, setEvidence] = useState(begun[1] ?? '');
  const write = (state: Slot['state'] | null, words: string) => {
    setWanted(state);
    setEvidence(words);
    drafts.write(STATE_DRAFT, state === null ? null : `${state}\n${words}`);
  };
  const [problem, setProblem] = useState<string | null>(null);
  const choose = (state: Slot['state']) => {
    setProblem(null);
    if (wantsProof(state) && state !== slot.state) return write(state, evidence);
    write(null, '');
    onChange({ state, stateEvidence: undefined });
  };
  const keep = () => {
    if (wanted === null) return;
    const wrong = stateProblem(wanted, evidence);
    setProblem(wrong);
    if (wrong) return;
    onChange({ state: wanted, stateEvidence: evidence.trim() });
    write(null, '');
  };
  return (
    <div className={wanted ? 'col-span-2 grid gap-2' : ''}>
      <Labelled name="State">
        <Select
          value={wanted ?? slot.state}
          onChange={(event) => choose(SLOT_STATES.find((one) => one === event.target.value) ?? 'unknown')}
        >
          {SLOT_STATES.map((one) => (
            <option key={one} value={one}>
              {spokenWord(one)}
            </option>
          ))}
        </Select>
      </Labelled>
      {slot.stateEvidence && !wanted ? (
        <p className="mt-1 text-sm text-soft">Known from: {slot.stateEvidence}</p>
      ) : null}
      {wanted ? (
        <>
          <Labelled name={`How it is known that it is ${spokenWord(wanted)}`}>
            <input
              value={evidence}
              maxLength={200}
              onChange={(event) => write(wanted, event.target.value)}
              placeholder="build list, manual, traced …"
              className={INPUT}
            />
          </Labelled>
          {problem ? <Problem>{problem}</Problem> : null}
          <div className="flex gap-2">
            <Button look="primary" onClick={keep}>
              Keep it
            </Button>
            <Button onClick={() => write(null, '')}>Leave it {spokenWord(slot.state)}</Button>
          </div>
        </>
      ) : null}
    </div>
  );
}

function capital(words: string): string {
  return `${words[0]?.toUpperCase() ?? ''}${words.slice(1)}`;
}
