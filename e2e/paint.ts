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
