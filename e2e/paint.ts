/** What an act costs the page's own thread until it is drawn. */
import type { Page } from '@playwright/test';

/** Processor time of a page's main thread, counted by the thread itself: what else the machine does adds nothing to it. */
interface ThreadTime {
  /** While something is done, milliseconds. */
  during(act: () => Promise<unknown>): Promise<number>;
  /** From an event that an act brings until the paint that shows that it was recorded, milliseconds; none of what comes later. */
  untilPainted(event: 'keydown' | 'pointerup', act: () => Promise<unknown>): Promise<number>;
}

export async function threadTime(page: Page): Promise<ThreadTime> {
  const cdp = await page.context().newCDPSession(page);
  await cdp.send('Performance.enable', { timeDomain: 'threadTicks' });
  await cdp.send('Debugger.enable');
  const spent = async () => {
    const { metrics } = await cdp.send('Performance.getMetrics');
    return 1000 * (metrics.find(({ name }) => name === 'TaskDuration')?.value ?? Number.NaN);
  };
  return {
    async during(act) {
      const before = await spent();
      await act();
      return (await spent()) - before;
    },
    async untilPainted(event, act) {
      // The page stands still right after that paint, until its time is read: it would go on meanwhile.
      await page.evaluate(
        `{
          const shown = () =>
            [document.querySelector('[data-testid=recorded]')?.textContent, document.querySelector('article[data-test]')?.dataset.test].join();
          addEventListener('${event}', () => {
            const before = shown();
            const look = () =>
              shown() !== before ? setTimeout(() => { debugger; }) : requestAnimationFrame(look);
            requestAnimationFrame(look);
          }, { capture: true, once: true });
        }`,
      );
      const painted = new Promise<number>((resolve, reject) => {
        cdp.once('Debugger.paused', () =>
          spent()
            .then(async (now) => {
              await cdp.send('Debugger.resume');
              resolve(now);
            })
            .catch(reject),
        );
      });
      const before = await spent();
      await act();
      return (await painted) - before;
    },
  };
}

/** What the piece of work of `yardstick` takes on this kind of machine when it is quiet, milliseconds. */
export const PIECE_MS = 65;

/**
 * Thread time of a fixed piece of work in the same page, milliseconds, the median of three: what a page takes is held against
 * it, since this machine is at times half as quick as at others. Taken just before, for a machine changes within seconds.
 */
export async function yardstick(page: Page, thread: ThreadTime): Promise<number> {
  const all: number[] = [];
  for (let round = 0; round < 3; round++) {
    all.push(
      await thread.during(() =>
        page.evaluate(() => {
          // Objects and texts, as drawing a page has them.
          const rows = Array.from({ length: 40_000 }, (_, n) => ({
            n: (n * 7919) % 40_009,
            text: `row ${n}`,
          }));
          rows.sort((one, other) => one.n - other.n);
          return JSON.stringify(rows).length;
        }),
      ),
    );
  }
  return all.sort((one, other) => one - other)[1]!;
}

/**
 * What the piece of work took while each act was done, by those taken before and after it (one more than acts): a machine
 * that was quick before an act may be slow during it.
 */
export function around(pieces: readonly number[]): number[] {
  return pieces.slice(1).map((after, at) => (pieces[at]! + after) / 2);
}
