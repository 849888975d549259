/** The diagnosis as it is on a slow device: its answers come when the test says so. */
import type { Page } from './test';

/** Holds back what the diagnosis answers until it is let go, and every card at its first moment; from the start, or when asked. */
export async function holdAnswers(
  page: Page,
  fromStart = false,
): Promise<{ hold: () => Promise<void>; letGo: () => Promise<void> }> {
  await page.addInitScript((holding) => {
    const kept = { holding, pausing: false, waiting: [] as (() => void)[] };
    Object.assign(window, { kept });
    const Plain = window.Worker;
    window.Worker = class extends Plain {
      constructor(address: string | URL, options?: WorkerOptions) {
        super(address, options);
        this.addEventListener('message', (event: MessageEvent<{ type?: string }>) => {
          if (!kept.holding || event.data.type !== 'assessed') return;
          event.stopImmediatePropagation();
          kept.waiting.push(() => this.dispatchEvent(new MessageEvent('message', { data: event.data })));
        });
      }
    };
    new MutationObserver(() => {
      for (const pad of document.querySelectorAll('.takes-touch-later:not([data-held])')) {
        (pad as HTMLElement).dataset.held = '';
        for (const moment of pad.getAnimations()) if (kept.pausing) moment.pause();
      }
    }).observe(document, { childList: true, subtree: true });
  }, fromStart);
  type Kept = { holding: boolean; pausing: boolean; waiting: (() => void)[] };
  return {
    hold: () =>
      page.evaluate(() => {
        Object.assign((window as unknown as { kept: Kept }).kept, { holding: true, pausing: true });
      }),
    letGo: async () => {
      // It has answered by then, whatever that took.
      await page.waitForFunction(() => (window as unknown as { kept: Kept }).kept.waiting.length > 0);
      await page.evaluate(() => {
        const { kept } = window as unknown as { kept: Kept };
        kept.holding = false;
        for (const go of kept.waiting.splice(0)) go();
      });
    },
  };
}
