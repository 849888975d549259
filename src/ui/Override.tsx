'use client';

import { useState } from 'react';
import { Button, INPUT } from './controls';

/** Goes on although something stands against it: only with a reason, which is kept. */
export function Override({
  word,
  onOverride,
}: {
  word: string;
  /** Gives whether the reason was kept; where not, it stays to be mended. */
  onOverride: (reason: string) => { readonly ok: boolean };
}) {
  const [reason, setReason] = useState('');
  return (
    <div className="flex flex-wrap items-end gap-2">
      <label className="block flex-1">
        <span className="block text-sm font-semibold">Or all the same, because</span>
        <input value={reason} onChange={(event) => setReason(event.target.value)} className={INPUT} />
      </label>
      <Button
        disabled={reason.trim() === ''}
        onClick={() => {
          if (onOverride(reason.trim()).ok) setReason('');
        }}
      >
        {word}
      </Button>
    </div>
  );
}
