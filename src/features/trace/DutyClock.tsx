'use client';

import { useEffect, useState } from 'react';
import { Button } from '@/ui/controls';

const TICK_MS = 200;

/** A clock from “on”: how long what is made for seconds may still stay on, and that it has to go off now. */
export function DutyClock({ seconds }: { seconds: number }) {
  const [since, setSince] = useState<number | null>(null);
  const [now, setNow] = useState(0);
  useEffect(() => {
    if (since === null) return;
    const timer = setInterval(() => setNow(Date.now()), TICK_MS);
    return () => clearInterval(timer);
  }, [since]);
  const left = since === null ? seconds : Math.max(0, Math.ceil(seconds - (now - since) / 1000));
  const over = since !== null && left === 0;
  return (
    <div
      className={`mb-3 flex items-center justify-between gap-3 rounded-md border-2 px-3 py-2 ${over ? 'border-bad bg-caution-wash' : 'border-ink'}`}
      data-testid="duty-clock"
    >
      <p role="status" className={over ? 'text-xl font-bold text-bad' : 'text-lg'}>
        {since === null ? `At most ${seconds} s on` : over ? '▲ Off now' : `${left} s left`}
      </p>
      <Button
        onClick={() => {
          const at = Date.now();
          setNow(at);
          setSince(since === null ? at : null);
        }}
      >
        {since === null ? 'It is on' : 'It is off'}
      </Button>
    </div>
  );
}
