'use client';

import { useMemo } from 'react';
import { type Assessment, testInLog } from '#core/diagnosis';
import type { CircuitFile } from '#core/format';
import { heardId, type JobState, valueWords } from '#core/log';

/** What run, suspects and log show of a job: what was measured at stops, how parts stand, what readings are called. */
export function useTraced(circuit: CircuitFile | null, shown: JobState, assessment: Assessment | null) {
  const measured = useMemo(() => {
    const found = new Map<string, number>();
    const condition = shown.complaint?.condition;
    for (const { body, struck } of shown.readings) {
      if (
        !struck &&
        body.test.kind === 'volts' &&
        body.test.condition === condition &&
        body.test.pulled === undefined &&
        // A drop belongs to two stops; only a reading against the reference stands at one.
        body.test.against === circuit?.reference &&
        'volts' in body.value
      ) {
        found.set(body.test.node, body.value.volts);
      }
    }
    return found;
  }, [shown, circuit]);
  const standings = useMemo(
    () => new Map((assessment?.parts ?? []).map((part) => [part.part, part])),
    [assessment],
  );
  const effects = useMemo(
    () => new Map((assessment?.effects ?? []).map((effect) => [effect.id, effect])),
    [assessment],
  );
  const readingNames = useMemo(() => {
    const names = new Map<string, string>();
    for (const { event } of shown.entries) {
      const { body } = event;
      if (body.kind === 'reading') {
        names.set(event.id, `${testInLog(circuit, body.test)}: ${valueWords(body.value)}`);
      } else if (body.kind === 'complaint' && body.heard) {
        names.set(heardId(event.id), `Heard: ${valueWords({ sound: body.heard })}`);
      } else if (body.kind === 'function-check') {
        const words = testInLog(circuit, { ...body, kind: 'function' });
        names.set(event.id, `${words}: ${valueWords({ state: body.state })}`);
      }
    }
    return names;
  }, [shown, circuit]);
  const probeable = useMemo(
    () =>
      new Set(
        (circuit?.nodes ?? [])
          .filter((node) => (node.access?.length ?? 0) > 0 && node.id !== circuit?.reference)
          .map((node) => node.id),
      ),
    [circuit],
  );
  return { measured, standings, effects, readingNames, probeable };
}
