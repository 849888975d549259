'use client';

import { useState } from 'react';
import { Button, Problem } from '@/ui/controls';
import { saveFile } from '@/ui/saveFile';
import { sender } from './sender';
import { waitingFile } from './waitingFile';

/** Saves what waits as a file, for an address that is not reached any more. It stays here too until it is sent. */
export function SaveWaiting({ label = 'Save them as a file' }: { label?: string }) {
  const [problem, setProblem] = useState(false);
  const save = async () => {
    try {
      const file = await waitingFile(sender());
      saveFile(
        `waiting-${file.savedAt.slice(0, 16).replace(/[:T]/g, '-')}.json`,
        'application/json',
        JSON.stringify(file),
      );
      setProblem(false);
    } catch {
      setProblem(true);
    }
  };
  return (
    <>
      <Button look="quiet" onClick={() => void save()}>
        {label}
      </Button>
      {problem ? <Problem>The file could not be made here. What waits stays in this browser.</Problem> : null}
    </>
  );
}
