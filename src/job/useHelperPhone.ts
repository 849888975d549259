'use client';

/** The phone of the person at the key, as a card has it: its code, who has joined, and that it stands so. */
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Setting } from '#core/diagnosis';
import type { HelperRequest } from '#core/format';
import { liveNews } from '@/log/live';
import { readInTab, writeInTab } from '@/sync/drafts';
import { postJson } from '@/sync/post';
import { useJob } from './JobProvider';

export interface HelperPhone {
  /** What is typed on the phone to join; null where none is asked for, or a phone has joined. */
  readonly code: string | null;
  /** Who is at the key with a phone; null while nobody has joined. */
  readonly name: string | null;
  readonly problem: string | null;
  /** Asks for a phone, on this card and those that follow. */
  readonly begin: () => void;
}

interface Answer {
  readonly code?: string;
  readonly name?: string | null;
  readonly standsFor?: string | null;
  readonly message?: string;
}

const WANTED = 'helper phone';
const AWAY = 'The server did not answer, so no second phone can join. Say it aloud, or try again.';

/** One after the other: what a card no longer wants must not arrive after what the next one asks. */
let turn: Promise<unknown> = Promise.resolve();
function inTurn(url: string, body: HelperRequest) {
  const sent = turn.then(() => postJson<Answer>(url, body));
  turn = sent;
  return sent;
}

/** Ends the phone at the key: nobody is needed there any more. */
export async function endHelperPhone(jobId: string): Promise<void> {
  if (readInTab(WANTED) === null) return;
  writeInTab(WANTED, null);
  await inTurn(`/api/jobs/${jobId}/helper`, { kind: 'end' });
}

export function useHelperPhone({
  test,
  settings,
  asks,
  onStands,
}: {
  /** The id of the card's test. */
  test: string;
  settings: readonly Setting[];
  /** The card waits for the key. */
  asks: boolean;
  onStands: () => void;
}): HelperPhone {
  const { data, record } = useJob();
  const [wanted, setWanted] = useState(false);
  const [known, setKnown] = useState<Answer>({});
  const [problem, setProblem] = useState<string | null>(null);
  const url = `/api/jobs/${data.id}/helper`;
  useEffect(() => setWanted(readInTab(WANTED) !== null), []);
  const words = settings.map((one) => one.words);
  const said = words.join(', ');
  // It stands for one setting: the same test with another one is asked anew.
  const card = `${test} · ${said}`;
  const asked = useRef(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a card asks once, by its words
  useEffect(() => {
    if (!wanted || !asks || words.length === 0) return;
    asked.current = true;
    void inTurn(url, { kind: 'ask', card, settings: words }).then((posted) => {
      if (posted.kind === 'away') setProblem(AWAY);
      else if (!posted.ok) setProblem(posted.answer.message ?? 'It was not taken.');
      else {
        setProblem(null);
        setKnown(posted.answer);
      }
    });
  }, [wanted, asks, card, url]);
  // With the card goes what it has asked for.
  useEffect(
    () => () => {
      if (asked.current) void inTurn(url, { kind: 'answered', card });
    },
    [url, card],
  );
  const look = useCallback(async () => {
    const answer = await fetch(url).catch(() => null);
    if (!answer?.ok) return;
    const now = (await answer.json()) as Answer;
    setKnown((before) => (now.name == null && before.code ? { ...now, code: before.code } : now));
  }, [url]);
  useEffect(
    () => (wanted && asks ? liveNews(data.id).on('helper', () => void look()) : undefined),
    [wanted, asks, data.id, look],
  );
  // What was told for one time is not told for the next.
  useEffect(() => {
    if (!asks) setKnown(({ standsFor: _before, ...rest }) => rest);
  }, [asks]);
  const stands = asks && known.standsFor === card;
  const told = useRef<string | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: it is told once
  useEffect(() => {
    if (!stands) told.current = null;
    if (!stands || told.current === card) return;
    told.current = card;
    record({
      kind: 'note',
      words: `${known.name}, at the key with a phone of their own: it stands so (${said})`,
    });
    onStands();
  }, [stands, card]);
  return {
    code: known.code ?? null,
    name: known.name ?? null,
    problem,
    begin: () => {
      writeInTab(WANTED, 'yes');
      setProblem(null);
      setWanted(true);
    },
  };
}
