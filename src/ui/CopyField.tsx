'use client';

import { useState } from 'react';
import { Button, INPUT } from './controls';

/** An address that is handed on: selected with one tap, copied with one. */
export function CopyField({ label, value, what }: { label: string; value: string; what: string }) {
  const [said, setSaid] = useState('');
  return (
    <div className="flex flex-wrap items-end gap-2">
      <label className="block min-w-0 grow">
        <span className="mb-1 block font-semibold">{label}</span>
        <input readOnly value={value} className={INPUT} onFocus={(event) => event.target.select()} />
      </label>
      <Button
        onClick={() =>
          navigator.clipboard.writeText(value).then(
            () => setSaid(`The ${what} is copied.`),
            () => setSaid(`Select the ${what} and copy it.`),
          )
        }
      >
        Copy
      </Button>
      <p role="status" className="w-full text-sm text-good empty:hidden">
        {said}
      </p>
    </div>
  );
}
