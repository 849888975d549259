'use client';

/**
 * What a page still fetches and works out by itself: first what is looked at, then what is fetched ahead of its use, so that
 * it is there when the signal goes. The document bears `data-at-rest` while neither goes on.
 */
import { useEffect, useLayoutEffect } from 'react';
import { pressEarlyClicks } from './earlyClicks';

type Sort = 'looked at' | 'ahead';

const going: Record<Sort, number> = { 'looked at': 0, ahead: 0 };
let waiting: (() => void)[] = [];
let looking = false;

/** Something begins; gives what ends it, which may be called more than once. */
export function onItsWay(sort: Sort): () => void {
  going[sort] += 1;
  delete document.documentElement.dataset.atRest;
  let over = false;
  return () => {
    if (over) return;
    over = true;
    going[sort] -= 1;
    look();
  };
}

/** After the next drawing: what has come may ask for more when it is drawn. */
function look(): void {
  if (looking) return;
  looking = true;
  requestAnimationFrame(() =>
    setTimeout(() => {
      looking = false;
      if (going['looked at'] > 0) return;
      const ready = waiting;
      waiting = [];
      for (const one of ready) one();
      // What they begin is seen the next time; where they begin nothing, the page is at rest then.
      if (ready.length > 0) look();
      else if (going.ahead === 0) document.documentElement.dataset.atRest = '';
    }),
  );
}

/** Once all that is looked at is there. */
export function whenShown(): Promise<void> {
  return new Promise((resolve) => {
    waiting.push(resolve);
    look();
  });
}

/**
 * While `still`, something that is looked at is on its way. Said before the browser draws: what ends in a drawing and what
 * begins in it overlap, and nobody takes the page between them for shown.
 */
export function useOnItsWay(still: boolean): void {
  useLayoutEffect(() => (still ? onItsWay('looked at') : undefined), [still]);
}

/** The program of the page runs: what its first drawing asked for has been asked for by then. */
export function PageRuns(): null {
  useEffect(() => {
    const over = onItsWay('looked at');
    pressEarlyClicks();
    over();
  }, []);
  return null;
}
