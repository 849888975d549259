'use client';

import { useEffect, useState } from 'react';
import { BOUNDS } from '#core/format';
import { readNumber } from '#core/quantity';
import { kindWords } from '#core/repair';
import { countWords, type Level, type Stock } from '#core/stock';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Choice } from '@/ui/Choice';
import { Button, Field, INPUT, Problem } from '@/ui/controls';
import { Dialog } from '@/ui/Dialog';
import { dateWords } from '@/ui/dates';
import { Fold } from '@/ui/Fold';
import { PlaceLink } from '@/ui/PlaceLink';
import { Select } from '@/ui/Select';
import { useStockPlace } from '@/ui/useStockPlace';
import type { Ask } from './ask';
import { ItemForm } from './ItemForm';
import type { MoveLine } from './readStock';

const DEEDS = [
  { id: 'booked', name: 'Comes in' },
  { id: 'scrapped', name: 'Goes out' },
  { id: 'moved', name: 'Moves' },
  { id: 'counted', name: 'Counted' },
] as const;
type Deed = (typeof DEEDS)[number]['id'];

const SORT_WORDS: Readonly<Record<string, string>> = {
  booked: 'booked in',
  used: 'used on a job',
  'given-back': 'given back',
  counted: 'counted',
  scrapped: 'taken out',
  moved: 'moved',
};

/** One item: book it in or out, move it, count it; its moves, which stay. */
export function ItemSheet({
  level,
  stock,
  ask,
  onClose,
}: {
  level: Level;
  stock: Stock;
  ask: Ask;
  onClose: () => void;
}) {
  const { item } = level;
  return (
    <Dialog open title={item.name} onClose={onClose}>
      <p className="text-soft">
        {[item.sort, item.part ? kindWords(item.part) : ''].filter((one) => one !== '').join(' · ')}
      </p>
      <ul className="mt-2">
        {stock.places.map(({ id, name }) => {
          const count = level.at.find((one) => one.place === id)?.count ?? 0;
          return (
            <li key={id} className="flex justify-between border-b border-line py-1.5">
              <span>{name}</span>
              <span className={`reading ${count < 0 ? 'font-bold text-bad' : ''}`}>
                {countWords(count, item.unit)}
              </span>
            </li>
          );
        })}
      </ul>
      {stock.places.length === 0 ? (
        <p>Say first where parts lie.</p>
      ) : (
        <MoveForm level={level} stock={stock} ask={ask} />
      )}
      <Moves item={item.id} key={JSON.stringify(level.at)} />
      <Fold title="Put the item right" className="mt-2">
        <ItemForm key={item.id} item={item} ask={ask} />
      </Fold>
    </Dialog>
  );
}

function MoveForm({ level, stock, ask }: { level: Level; stock: Stock; ask: Ask }) {
  const { item } = level;
  const [place, setPlace] = useStockPlace(stock.places);
  const [sure, setSure] = useState<string | null>(null);
  const form = useKeptForm<{ deed: string; count: string; to: string; words: string }>({
    keep: `stock move ${item.id}`,
    first: { deed: 'booked', to: '' },
    take: async (values) => {
      const deed = values.deed as Deed;
      const range = deed === 'counted' ? BOUNDS.stockCount : BOUNDS.stockMove;
      const read = readNumber(textOf(values.count), range);
      if (!read.ok) return { ok: false, message: read.message, field: 'count' };
      if (place === null) return { ok: false, message: 'Say at which place.' };
      const words = textOf(values.words);
      const count = read.value;
      const allTheSame = sure === `${deed} ${place} ${count}` ? { allTheSame: true } : {};
      const to = textOf(values.to) || stock.places.find(({ id }) => id !== place)?.id || place;
      const answer = await ask(
        deed === 'counted'
          ? { kind: 'counted', place, counts: [{ item: item.id, count }] }
          : deed === 'moved'
            ? { kind: 'moved', item: item.id, count, words, from: place, to, ...allTheSame }
            : { kind: deed, item: item.id, count, words, place, ...allTheSame },
      );
      setSure(!answer.ok && answer.allTheSame ? `${deed} ${place} ${count}` : null);
      return answer;
    },
  });
  const deed = (form.watch('deed') ?? 'booked') as Deed;
  return (
    <form onSubmit={form.submit} className="mt-3 grid gap-2">
      <Choice
        legend="What happens"
        quiet
        options={DEEDS}
        chosen={deed}
        onChoose={(id) => form.setValue('deed', id, { shouldDirty: true })}
      />
      <div className="grid grid-cols-2 gap-2">
        <Field label={deed === 'moved' ? 'From' : 'At'}>
          <Select value={place ?? ''} onChange={(event) => setPlace(event.target.value)}>
            {stock.places.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </Select>
        </Field>
        {deed === 'moved' ? (
          <Field label="To">
            <Select {...form.register('to')}>
              {stock.places
                .filter(({ id }) => id !== place)
                .map(({ id, name }) => (
                  <option key={id} value={id}>
                    {name}
                  </option>
                ))}
            </Select>
          </Field>
        ) : null}
        <Field label={deed === 'counted' ? 'There are' : 'How many'}>
          <input {...form.register('count')} inputMode="decimal" autoComplete="off" className={INPUT} />
        </Field>
        {deed === 'scrapped' || deed === 'moved' ? (
          <Field label="Why" hint="May stay empty">
            <input {...form.register('words')} className={INPUT} />
          </Field>
        ) : null}
      </div>
      {form.problem ? <Problem>{form.problem}</Problem> : null}
      <Button look="primary" type="submit" disabled={form.busy}>
        {sure !== null ? 'Book it all the same' : 'Book it'}
      </Button>
    </form>
  );
}

/** What became of it, newest first. */
function Moves({ item }: { item: string }) {
  const [moves, setMoves] = useState<readonly MoveLine[] | null>(null);
  useEffect(() => {
    let here = true;
    void fetch(`/api/stock/moves?item=${item}`)
      .then((response) => (response.ok ? response.json() : { moves: [] }))
      .then(
        (answer: { moves: MoveLine[] }) => here && setMoves(answer.moves),
        () => here && setMoves([]),
      );
    return () => {
      here = false;
    };
  }, [item]);
  if (!moves || moves.length === 0) return null;
  return (
    <Fold title={`Moves (${moves.length === 50 ? 'the last 50' : moves.length})`} className="mt-2">
      <ul className="text-sm" data-testid="moves">
        {moves.map((one) => (
          <li key={one.id} className="flex justify-between gap-3 border-b border-line py-1">
            <span>
              {dateWords(one.madeAt, 'short')} · {SORT_WORDS[one.sort] ?? one.sort}, {one.place}
              {one.words ? `: ${one.words}` : ''}
              <span className="block text-soft">
                {one.person}
                {one.job ? (
                  <>
                    {' · '}
                    <PlaceLink href={`/jobs/${one.job.id}`} className="underline">
                      {one.job.title}
                    </PlaceLink>
                  </>
                ) : null}
              </span>
            </span>
            <span className="reading">{one.count > 0 ? `+${one.count}` : one.count}</span>
          </li>
        ))}
      </ul>
    </Fold>
  );
}
