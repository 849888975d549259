/** The check of entries by their schema: large, and wanted only when something is entered. */
import { checkEvent, ENTRY_VERSION } from '#core/format';

const NOBODY = '00000000-0000-4000-8000-000000000000';

/**
 * Goes through the check once with an entry that is nobody's: the browser compiles it while nothing is waited for, and
 * not under the thumb that records the first reading.
 */
export function warmUp(): void {
  checkEvent({
    id: NOBODY,
    jobId: NOBODY,
    version: ENTRY_VERSION,
    madeAt: new Date(0).toISOString(),
    clientOrder: 0,
    body: {
      kind: 'reading',
      test: { kind: 'volts', node: 'a', against: 'b', condition: 'c' },
      value: { volts: 0 },
      raw: '0',
      testerProved: true,
    },
  });
}

export { checkEvent };
