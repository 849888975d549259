'use client';

import { useEffect, useRef, useState } from 'react';

/** Said when the address of the work document was changed by a link, after it has changed. */
const MOVED = 'every-trace:moved';

/** Why what is drawn next has to be brought into sight; going back is not among it, the browser remembers the place. */
let arrival: 'loaded' | 'moved' | null = 'loaded';

/** Another view of the document that is open, or another place in it; it can be gone back from. */
export function changeAddress(href: string): void {
  arrival = 'moved';
  window.history.pushState(null, '', href);
  window.dispatchEvent(new Event(MOVED));
}

/** What stands behind the `?` of the address, as it was when the page was drawn or gone to last. */
export function useSearch(): string {
  const [search, setSearch] = useState(() => window.location.search);
  useEffect(() => {
    const moved = () => setSearch(window.location.search);
    for (const event of [MOVED, 'popstate']) window.addEventListener(event, moved);
    return () => {
      for (const event of [MOVED, 'popstate']) window.removeEventListener(event, moved);
    };
  }, []);
  return search;
}

/** Whether this page was loaded anew where it stood, and not gone to. */
export function wasReloaded(): boolean {
  const [navigation] = performance.getEntriesByType('navigation') as PerformanceNavigationTiming[];
  return navigation?.type === 'reload';
}

/** So long after the last key the address follows: browsers allow only so many changes of it. */
const FOLLOWS_MS = 300;

/** The address says what is typed on the page, so that it can be kept and shared; nothing is asked of a server for it. */
export function useAddress(address: string): void {
  const first = useRef(true);
  useEffect(() => {
    // As the page was opened it stands already.
    if (first.current) {
      first.current = false;
      return;
    }
    const timer = setTimeout(() => {
      if (`${window.location.pathname}${window.location.search}` !== address) {
        window.history.replaceState(window.history.state, '', address);
      }
    }, FOLLOWS_MS);
    return () => clearTimeout(timer);
  }, [address]);
}

/**
 * Brings what the address names into sight once it is drawn: the place behind `#`, else the beginning, where whoever
 * goes by keys or by ear goes on too. `drawn` is the path that is drawn; null while nothing of it is.
 */
export function useSight(drawn: string | null): void {
  useEffect(() => {
    if (drawn === null) return;
    arrive();
    const moved = () => {
      if (window.location.pathname === drawn) arrive();
    };
    window.addEventListener(MOVED, moved);
    return () => window.removeEventListener(MOVED, moved);
  }, [drawn]);
}

function arrive(): void {
  const why = arrival;
  arrival = null;
  if (why === null) return;
  const id = decodeURIComponent(window.location.hash.slice(1));
  const place = id === '' ? null : document.getElementById(id);
  if (place) place.scrollIntoView();
  else if (id !== '') whenThere(id);
  else if (why === 'moved') window.scrollTo(0, 0);
  if (why === 'moved') document.getElementById('main')?.focus({ preventScroll: true });
}

/** So long a place that is named is waited for, milliseconds. */
const WAIT_MS = 5000;

/** The place may be in a part of the page that is still fetched; whoever scrolls meanwhile is not pulled away. */
function whenThere(id: string): void {
  const stop = new AbortController();
  const watch = new MutationObserver(() => {
    const place = document.getElementById(id);
    if (!place) return;
    stop.abort();
    place.scrollIntoView();
  });
  stop.signal.addEventListener('abort', () => watch.disconnect());
  for (const gesture of ['wheel', 'touchmove', 'keydown', MOVED]) {
    window.addEventListener(gesture, () => stop.abort(), { signal: stop.signal, once: true });
  }
  setTimeout(() => stop.abort(), WAIT_MS);
  watch.observe(document.body, { childList: true, subtree: true });
}
