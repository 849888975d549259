'use client';

import { useEffect, useState } from 'react';
import { useJob } from './JobProvider';

/**
 * Where a picture is shown from: what this browser took stays shown from here, so that nothing moves under the hand
 * when the server has it; all others come from the server.
 */
export function usePicture(id: string): string {
  const { pictures } = useJob();
  const [taken, setTaken] = useState(pictures.get(id) ?? null);
  const waiting = pictures.get(id);
  if (waiting && !taken) setTaken(waiting);
  const [local, setLocal] = useState<string | null>(null);
  useEffect(() => {
    if (!taken) return;
    const url = URL.createObjectURL(taken);
    setLocal(url);
    return () => URL.revokeObjectURL(url);
  }, [taken]);
  return taken ? (local ?? '') : `/api/photos/${id}`;
}
