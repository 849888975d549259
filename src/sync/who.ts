'use client';

/** Who works in this browser, for which shop and in which zone: as the server last said, also while it is away. */
import { useSyncExternalStore } from 'react';
import type { Hand, Role } from '#core/format';
import { draftsOf, readDraft, writeDraft } from './drafts';

export interface Who {
  readonly personId: string;
  readonly personName: string;
  readonly role: Role;
  readonly shopId: string;
  readonly shopName: string;
  readonly town: string;
  /** Whether the shop is the demo. */
  readonly demo: boolean;
  /** Zone of the workshop, as `Europe/Dublin`. */
  readonly zone: string;
  /** What the person has at hand and is used to; not said by an older answer. */
  readonly hand?: Hand;
  /** The address by which other phones come in; null while nothing is shared, not said by an older answer. */
  readonly share?: string | null;
}

/** To whom something that waits in this browser belongs. */
export interface Owner {
  readonly person: string;
  readonly shop: string;
  /** Not said by an earlier program. */
  readonly shopName?: string;
  /** As it stands beside an entry until the server has put it there. */
  readonly name: string;
}

const KEPT = 'who';
const listeners = new Set<() => void>();
/** Undefined while the server is asked for the first time in this browser; null where it could not say. */
let known: Who | null | undefined;
let signedOut = false;
let asking: Promise<void> | null = null;

function read(): Who | null | undefined {
  known ??= kept();
  return known;
}

function kept(): Who | null | undefined {
  try {
    const text = readDraft(KEPT);
    const who = text === null ? known : (JSON.parse(text) as Who);
    if (who) take(who);
    return who;
  } catch {
    return known;
  }
}

function take(who: Who): void {
  document.documentElement.dataset.zone = who.zone;
  // An earlier program did not say who.
  if (who.personId) draftsOf(who.personId);
}

/** The name that stands beside an entry until the server has put it there. */
export function whoIsHere(): string {
  return (typeof window === 'undefined' ? null : read())?.personName ?? 'you';
}

/** Whose what is made here now is; null where this browser was never told. */
export function ownerHere(): Owner | null {
  const who = typeof window === 'undefined' ? null : read();
  if (!who?.personId) return null;
  return { person: who.personId, shop: who.shopId, shopName: who.shopName, name: who.personName };
}

async function ask(): Promise<void> {
  const told = await fetch('/api/me').then(
    async (response) =>
      response.ok ? ((await response.json()) as Who) : response.status === 401 ? 'nobody' : null,
    () => null,
  );
  const before = read();
  const out = signedOut;
  if (told !== null) signedOut = told === 'nobody';
  const who = told === 'nobody' ? null : told;
  const same = who === null ? before !== undefined : JSON.stringify(who) === JSON.stringify(before);
  if (same && out === signedOut) return;
  if (who || before === undefined) known = who;
  if (who) {
    writeDraft(KEPT, JSON.stringify(who));
    take(who);
  }
  for (const listener of listeners) listener();
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  if (!asking) void whoIsAsked();
  return () => listeners.delete(listener);
}

/** Asks once who is here, and waits for the answer. */
function whoIsAsked(): Promise<void> {
  asking ??= ask();
  return asking;
}

/** Asks the server again: something about the person has changed. */
export function askWhoAgain(): Promise<void> {
  asking = ask();
  return asking;
}

/** Undefined until it is known here; null where this browser was never told and the server does not say it now. */
export function useWho(): Who | null | undefined {
  return useSyncExternalStore(subscribe, read, () => undefined);
}

/** Whether the server says that nobody is signed in here, or no longer. */
export function useSignedOut(): boolean {
  return useSyncExternalStore(
    subscribe,
    () => signedOut,
    () => false,
  );
}
