'use client';

import { useRouter } from 'next/navigation';
import { useRef } from 'react';
import { postJson } from '@/sync/post';
import { requestFor, type Tried } from '@/sync/requestFor';
import { wasOf } from './fact';

/** Keeps what was learned of a part, as a new version of every circuit of the vehicle that has it; null takes a field away. */
export function usePartFact(
  vehicleId: string,
): (
  part: { readonly id: string },
  fields: Readonly<Record<string, unknown>>,
) => Promise<{ ok: true } | { ok: false; message: string }> {
  const router = useRouter();
  const request = useRef<Tried | null>(null);
  return async (part, fields) => {
    const fact = { part: part.id, fields, was: wasOf(part, fields) };
    request.current = requestFor(request.current, JSON.stringify(fact));
    const posted = await postJson<{ message?: string }>(`/api/vehicles/${vehicleId}/facts`, {
      id: request.current.id,
      ...fact,
    });
    if (posted.kind === 'away') return { ok: false, message: posted.message };
    if (!posted.ok) return { ok: false, message: posted.answer.message ?? 'It was not taken.' };
    router.refresh();
    return { ok: true };
  };
}
