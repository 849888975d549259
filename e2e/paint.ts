/** What an act costs the page's own thread until it is drawn. */
import type { Page } from '@playwright/test';

/**
 * Processor time of the page's main thread from an act until it is drawn, milliseconds. Counted by the thread itself:
 * what else the machine does adds nothing to it.
 */
export async function threadTime(page: Page): Promise<(act: () => Promise<unknown>) => Promise<number>> {
  const cdp = await page.context().newCDPSession(page);
  await cdp.send('Performance.enable', { timeDomain: 'threadTicks' });
  const spent = async () => {
    const { metrics } = await cdp.send('Performance.getMetrics');
    return metrics.find(({ name }) => name === 'TaskDuration')?.value ?? Number.NaN;
  };
  return async (act) => {
    const before = await spent();
    await act();
    await page.evaluate(() => new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve))));
    return 1000 * ((await spent()) - before);
  };
}

/** What the piece of work of `yardstick` takes on this kind of machine when it is quiet, milliseconds. */
export const PIECE_MS = 65;

/**
 * Thread time of a fixed piece of work in the same page, milliseconds, the median of three: what a page takes is held against
 * it, since this machine is at times half as quick as at others. Taken just before, for a machine changes within seconds.
 */
export async function yardstick(
  page: Page,
  took: (act: () => Promise<unknown>) => Promise<number>,
): Promise<number> {
  const all: number[] = [];
  for (let round = 0; round < 3; round++) {
    all.push(
      await took(() =>
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
