'use client';

import { useRef, useState } from 'react';
import { postJson } from '@/sync/post';
import { requestFor, type Tried } from '@/sync/requestFor';
import { CopyField } from '@/ui/CopyField';
import { Button, Problem } from '@/ui/controls';

/** The secret address at which a calendar reads the follow-ups by itself; a new one ends the old. */
export function FeedAddress({ first }: { first: string | null }) {
  const [address, setAddress] = useState(first);
  const [problem, setProblem] = useState<string | null>(null);
  const [times, setTimes] = useState(0);
  const tried = useRef<Tried | null>(null);
  const whole =
    address === null || typeof window === 'undefined' ? '' : new URL(address, window.location.href).href;
  const make = async () => {
    tried.current = requestFor(tried.current, String(times));
    const posted = await postJson<{ message?: string; address?: string }>('/api/follow-ups/feed', {
      id: tried.current.id,
    });
    if (posted.kind === 'away') return setProblem(posted.message);
    if (!posted.ok || !posted.answer.address) return setProblem(posted.answer.message ?? 'It was not made.');
    setProblem(null);
    setTimes(times + 1);
    setAddress(posted.answer.address);
  };
  return (
    <div className="mt-2 max-w-xl" data-testid="feed">
      {address === null ? null : (
        <>
          <CopyField label="Address for a calendar" value={whole} what="address" />
          <p className="mt-1 text-sm text-soft">
            Whoever has it reads the follow-ups. A new one ends this one.
          </p>
        </>
      )}
      {problem ? <Problem>{problem}</Problem> : null}
      <div className="mt-2 flex flex-wrap gap-2">
        <Button onClick={() => void make()}>
          {address === null ? 'Make an address that a calendar reads by itself' : 'A new address'}
        </Button>
      </div>
    </div>
  );
}
