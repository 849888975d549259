'use client';

import { memo } from 'react';
import type { ReadingEffect } from '#core/diagnosis';
import type { CircuitFile } from '#core/format';
import { conditionName, entryTime, eventWords, type LogEntry, momentOf } from '#core/log';
import { Button } from '@/ui/controls';
import { dateWords } from '@/ui/dates';
import { entryTimeWords } from '@/workers/sheetHead';

/** The log, newest first; struck entries stay, crossed out. */
export const TraceLog = memo(function TraceLog({
  circuit,
  entries,
  effects,
  onCorrect,
}: {
  circuit: CircuitFile;
  entries: readonly LogEntry[];
  effects: ReadonlyMap<string, ReadingEffect>;
  onCorrect: (entry: LogEntry) => void;
}) {
  const shown = entries.filter((entry) => entry.event.body.kind !== 'correction').reverse();
  return (
    <ol className="divide-y divide-line" data-testid="log" aria-label="Log, newest first">
      {shown.map((entry) => {
        const { event, struck } = entry;
        const effect = effects.get(event.id);
        const { body } = event;
        const { arrived } = entryTime(event);
        return (
          <li key={event.id} className="flex items-start justify-between gap-3 py-2">
            <div className="min-w-0">
              <p className={struck ? 'text-soft line-through' : ''}>
                <time dateTime={momentOf(event)} className="reading mr-2 text-sm text-soft">
                  {dateWords(momentOf(event), 'time')}
                </time>
                <strong>{eventWords(circuit, body)}</strong>
                {body.kind === 'reading' && 'condition' in body.test ? (
                  <span className="text-soft"> · {conditionName(circuit, body.test.condition)}</span>
                ) : null}
                {body.kind === 'reading' && body.raw !== '' ? (
                  <span className="reading text-sm text-soft"> · entered “{body.raw}”</span>
                ) : null}
                {event.seq === null ? (
                  <span className="text-sm text-caution"> · waiting to be sent</span>
                ) : null}
                {arrived === undefined ? null : (
                  <span className="text-sm text-caution">
                    {' '}
                    · {entryTimeWords({ at: event.madeAt, arrived })}
                  </span>
                )}
              </p>
              {struck ? (
                <p className="text-sm text-soft">Struck{struck.reason ? `: ${struck.reason}` : ''}</p>
              ) : effect ? (
                <p className={`text-[0.95rem] ${effect.unexpected ? 'font-semibold text-bad' : 'text-soft'}`}>
                  {effect.sentence}
                </p>
              ) : null}
            </div>
            {!struck && (body.kind === 'reading' || body.kind === 'function-check') ? (
              <Button
                look="quiet"
                className="shrink-0"
                onClick={() => onCorrect(entry)}
                aria-label={`Correct: ${eventWords(circuit, body)}`}
              >
                Correct
              </Button>
            ) : null}
          </li>
        );
      })}
    </ol>
  );
});
