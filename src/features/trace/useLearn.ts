'use client';

import { useRef } from 'react';
import type { CircuitPart } from '#core/format';
import { wasOf } from '@/features/vehicles';
import { useJob } from '@/job/JobProvider';
import { postJson } from '@/sync/post';
import { requestFor, type Tried } from '@/sync/requestFor';

export type LearnAnswer = { readonly ok: true } | { readonly ok: false; readonly message: string };

/** What was found out about a part goes into the vehicle's map, and a note says so in the log. */
export function useLearn() {
  const { data, record, refresh } = useJob();
  const request = useRef<Tried | null>(null);
  return async (part: CircuitPart, fields: Record<string, unknown>, said: string): Promise<LearnAnswer> => {
    const fact = { part: part.id, fields, was: wasOf(part, fields) };
    request.current = requestFor(request.current, JSON.stringify(fact));
    const posted = await postJson<{ message?: string; stays?: string | null }>(`/api/jobs/${data.id}/facts`, {
      id: request.current.id,
      ...fact,
    });
    if (posted.kind === 'away') return { ok: false, message: posted.message };
    if (!posted.ok) return { ok: false, message: posted.answer.message ?? 'It was not taken.' };
    record({ kind: 'note', words: `Map: ${part.name} ${said}.` });
    refresh();
    return posted.answer.stays ? { ok: false, message: posted.answer.stays } : { ok: true };
  };
}
