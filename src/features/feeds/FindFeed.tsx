'use client';

import { type ReactNode, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import {
  type Candidate,
  candidateText,
  type FeedAsk,
  feedKey,
  feedTitle,
  readSupply,
  type TypedSupply,
  wantedWords,
} from '#core/feed';
import type { CircuitFile, Panel, Slot } from '#core/format';
import type { KeyState, SlotReading } from '#core/limits';
import { figure } from '#core/sizing';
import { readKept, writeDraft } from '@/sync/drafts';
import { useAddress, wasReloaded } from '@/ui/address';
import { Button, Caution, Problem } from '@/ui/controls';
import { Fold } from '@/ui/Fold';
import { useFeeds } from '@/workers/useFeeds';
import { AskForm } from './AskForm';
import { askIn, EMPTY_ASK, readAsk, searchOfAsk, type TypedAsk } from './askAddress';
import { CandidateCard, capital } from './CandidateCard';
import { SupplyForm } from './SupplyForm';

/** So many of those that are not sure come at once. */
const FIRST = 6;

type Said = Readonly<Record<string, TypedSupply>>;

export interface FeedPlace {
  readonly vehicleId: string;
  readonly panels: readonly Panel[];
  readonly circuits: readonly CircuitFile[];
  readonly readings: readonly SlotReading[];
  readonly nominalVolts: number;
  /** Families of taps that the stock has. */
  readonly tapsInStock: readonly Slot['family'][];
  /** What the address asked for when the page was made, behind its `?`. */
  readonly askedAtFirst: string;
  readonly addressOf: (search: string) => string;
  /** The way into the survey, at a slot in a state. */
  readonly toRead: (panel: string, slot: string, state: KeyState, holes: boolean) => ReactNode;
  readonly deeds: (candidate: Candidate, ask: FeedAsk, text: string) => ReactNode;
}

/** Asks for a feed, and shows every slot of the vehicle as one: those that fit, those still to be read, the refused with their reason. */
export function FindFeed(place: FeedPlace) {
  const { vehicleId, panels, circuits, readings, nominalVolts, tapsInStock, askedAtFirst, addressOf } = place;
  const keep = `feed ask ${vehicleId}`;
  const keepSaid = `feed supply ${vehicleId}`;
  const [inAddress] = useState(() => askIn(new URLSearchParams(askedAtFirst)));
  const nothingAsked = () => ({ ...EMPTY_ASK, taps: tapsInStock.join(',') });
  const [typed, setTyped] = useState<TypedAsk>(() => ({ ...nothingAsked(), ...inAddress }));
  const [said, setSaid] = useState<Said>({});
  const begun = useRef(false);
  // In the hand, whether the question is open: one that the address asks is folded to one line when it is first drawn.
  const [asking, setAsking] = useState(() => readAsk(typed, nominalVolts).ask === null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when the page begins to run
  useEffect(() => {
    if (begun.current) return;
    begun.current = true;
    setSaid(readKept<Said>(keepSaid) as Said);
    const kept = readKept<TypedAsk>(keep);
    // The address follows what is typed a moment later: after a reload what was typed is what is newer.
    const isAddressNewer =
      Object.keys(inAddress).length > 0 && !(wasReloaded() && Object.keys(kept).length > 0);
    if (isAddressNewer || Object.keys(kept).length === 0) return;
    const newer = { ...nothingAsked(), ...kept };
    setTyped(newer);
    setAsking(readAsk(newer, nominalVolts).ask === null);
  }, []);
  const read = useMemo(() => readAsk(typed, nominalVolts), [typed, nominalVolts]);
  const address = addressOf(searchOfAsk(typed));
  useAddress(address);
  const type = (field: keyof TypedAsk, text: string) => {
    const next = { ...typed, [field]: text };
    setTyped(next);
    writeDraft(keep, JSON.stringify(next));
  };
  const say = (key: string, supply: TypedSupply) => {
    const next = { ...said, [key]: supply };
    setSaid(next);
    writeDraft(keepSaid, JSON.stringify(next));
  };
  const families = useMemo(() => familiesOf(panels), [panels]);
  const asked = useDeferredValue(read);
  const question = useMemo(() => {
    if (!asked.ask) return null;
    const slotOf = (key: string) => {
      const [panel, slot] = key.split('/');
      return panels.find(({ id }) => id === panel)?.slots.find(({ id }) => id === slot);
    };
    const supplies = Object.fromEntries(
      Object.entries(said).flatMap(([key, one]) => {
        const supply = readSupply(one, nominalVolts, slotOf(key)?.family).said;
        return supply ? [[key, supply]] : [];
      }),
    );
    return {
      scene: { panels, readings, nominalVolts, said: supplies },
      ask: asked.ask,
      metres: asked.metres,
    };
  }, [asked, panels, readings, nominalVolts, said]);
  const { found, problem } = useFeeds(circuits, question);
  const ask = question?.ask ?? null;
  const card = (candidate: Candidate) => {
    const key = keyOf(candidate);
    const panel = panels.find(({ id }) => id === candidate.panel)!;
    return (
      <li key={key}>
        <CandidateCard
          candidate={candidate}
          ask={ask!}
          panel={panel}
          toRead={(state, holes) => place.toRead(candidate.panel, candidate.slot.id, state, holes)}
          supply={
            <SupplyForm
              slot={candidate.slot}
              typed={said[key] ?? {}}
              nominalVolts={nominalVolts}
              onType={(supply) => say(key, supply)}
            />
          }
          deeds={place.deeds(candidate, ask!, candidateText(candidate, ask!))}
        />
      </li>
    );
  };
  const of = (verdict: Candidate['verdict']) =>
    found?.candidates.filter((one) => one.verdict === verdict) ?? [];
  const [fits, open, refused] = [of('fits'), of('to-read'), of('refused')];
  // What somebody is typing about stays a card in its place, however it comes out.
  const isSaid = (one: Candidate) => Object.values(said[keyOf(one)] ?? {}).some((text) => text !== '');
  const cards = useSteady(JSON.stringify(ask), [...fits, ...open, ...refused.filter(isSaid)]);
  const first = fits.length + FIRST;
  return (
    <div className="lg:grid lg:grid-cols-[24rem_minmax(0,1fr)] lg:gap-6">
      <section aria-labelledby="feed-ask" className="lg:sticky lg:top-32 lg:self-start">
        <div className="flex items-center justify-between gap-3">
          <h2 id="feed-ask" className="mb-2 text-xl">
            {asking || read.ask === null ? (
              'What is it for?'
            ) : (
              <>
                <span className="lg:hidden">{askedWords(read.ask)}</span>
                <span className="hidden lg:inline">What is it for?</span>
              </>
            )}
          </h2>
          {/* As it is typed, not as it is being answered: nothing moves when the answer comes. */}
          {read.ask === null ? null : (
            <span className="shrink-0 lg:hidden">
              <Button aria-expanded={asking} onClick={() => setAsking(!asking)}>
                {asking ? 'To the feeds' : 'Change it'}
              </Button>
            </span>
          )}
        </div>
        <div className={asking || read.ask === null ? '' : 'hidden lg:block'}>
          <AskForm typed={typed} read={read} families={families} onType={type} />
        </div>
      </section>
      <section aria-labelledby="feeds-found" className="mt-6 lg:mt-0">
        {problem ? <Problem>{problem}</Problem> : null}
        {ask === null || found === null ? (
          <p className="text-lg text-soft" id="feeds-found">
            {read.ask === null ? 'Say what it draws: then every slot is judged.' : 'Looking at every slot …'}
          </p>
        ) : (
          <>
            <h2 id="feeds-found" className="text-xl" aria-live="polite" data-testid="feed-counts">
              {countWords(fits.length, open.length, refused.length)}
            </h2>
            <p className="text-soft">
              {figure(ask.amps, 'A')}
              {ask.purpose ? ` for ${ask.purpose}` : ''}; {wantedWords(ask.wanted)}.
            </p>
            {fits.length === 0 && (found.engine || found.relay) ? (
              <div className="mt-3 border-l-4 border-copper bg-copper-wash px-3 py-2">
                {found.engine ? (
                  <p data-testid="feed-engine">
                    <strong>Only while the engine runs:</strong> {found.engine.sentence}
                  </p>
                ) : null}
                {found.relay ? (
                  <div data-testid="feed-relay">
                    <p className="font-bold">
                      More than these feeds can give: switch a relay with {feedTitle(found.relay.coil)}
                    </p>
                    <ol className="mt-1 list-decimal pl-6">
                      {found.relay.steps.map((step) => (
                        <li key={step}>{step}</li>
                      ))}
                    </ol>
                  </div>
                ) : null}
              </div>
            ) : null}
            <ul className="mt-3 grid gap-3">{cards.slice(0, first).map(card)}</ul>
            {cards.length > first ? (
              <Fold title={`${cards.length - first} more that are not sure`} className="mt-3">
                <ul className="mt-2 grid gap-3">{cards.slice(first).map(card)}</ul>
              </Fold>
            ) : null}
            {refused.some((one) => !isSaid(one)) ? (
              <div className="mt-5">
                <h2 className="border-b-2 border-line pb-1 text-xl">Refused</h2>
                <ul data-testid="feeds-refused">
                  {refused
                    .filter((one) => !isSaid(one))
                    .map((one) => (
                      <li key={keyOf(one)} className="border-b border-line py-2" data-feed={keyOf(one)}>
                        <strong>{capital(feedTitle(one))}.</strong> {one.sentence}
                      </li>
                    ))}
                </ul>
              </div>
            ) : null}
            <div className="mt-4">
              <Caution>
                The maker’s information comes first. What is tapped is proved: original fuse out, added fuse
                in, added lead unloaded, key on. Dead says turn the tap round.
              </Caution>
            </div>
          </>
        )}
      </section>
    </div>
  );
}

/** The question in one line. */
function askedWords({ amps, purpose }: FeedAsk): string {
  return purpose === '' ? figure(amps, 'A') : `${figure(amps, 'A')} for ${purpose}`;
}

const keyOf = ({ panel, slot }: Candidate) => feedKey(panel, slot.id);

/** The same question answered anew keeps the order in which its cards came: none moves away under a finger. */
function useSteady(question: string, candidates: readonly Candidate[]): readonly Candidate[] {
  const order = useRef<{ question: string; keys: readonly string[] }>({ question: '', keys: [] });
  const now = candidates.map(keyOf);
  if (order.current.question !== question || order.current.keys.length === 0) {
    order.current = { question, keys: now };
  }
  const { keys } = order.current;
  order.current.keys = [...keys, ...now.filter((key) => !keys.includes(key))];
  const at = new Map(order.current.keys.map((key, index) => [key, index]));
  return [...candidates].sort((one, other) => at.get(keyOf(one))! - at.get(keyOf(other))!);
}

function countWords(fits: number, open: number, refused: number): string {
  return [
    fits === 0 ? 'None is sure' : fits === 1 ? '1 fits' : `${fits} fit`,
    open === 0 ? '' : `${open} still to be read or said`,
    refused === 0 ? '' : `${refused} refused`,
  ]
    .filter((words) => words !== '')
    .join(' · ');
}

/** Families of fuses that the vehicle has, the most common first. */
function familiesOf(panels: readonly Panel[]): Slot['family'][] {
  const counts = new Map<Slot['family'], number>();
  for (const slot of panels.flatMap(({ slots }) => slots)) {
    if (slot.type === 'fuse' && slot.family !== 'stud' && slot.family !== 'none') {
      counts.set(slot.family, (counts.get(slot.family) ?? 0) + 1);
    }
  }
  return [...counts].sort((one, other) => other[1] - one[1]).map(([family]) => family);
}
