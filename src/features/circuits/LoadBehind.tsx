'use client';

import { useState } from 'react';
import type { CircuitPart } from '#core/format';
import { feedPin, LOAD_WORDS, type LoadWord } from '#core/notation';
import { Button, Field, INPUT } from '@/ui/controls';
import { Fold } from '@/ui/Fold';
import { Select } from '@/ui/Select';

export interface NewLoad {
  readonly part: string;
  readonly kind: LoadWord;
  readonly name: string;
}

/** Another load behind a fuse, a relay's contact or a contact of the key: named here, written as a line of the text. */
export function LoadBehind({ part, onGrow }: { part: CircuitPart; onGrow: (load: NewLoad) => void }) {
  const [name, setName] = useState('');
  const [kind, setKind] = useState<LoadWord>('lamp');
  if (feedPin(part) === null) return null;
  return (
    <Fold title="It feeds another load too" testId="load-behind">
      <form
        className="grid gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim()) onGrow({ part: part.id, kind, name: name.trim() });
        }}
      >
        <Field label="What it feeds, as it is called">
          <input
            value={name}
            maxLength={80}
            onChange={(event) => setName(event.target.value)}
            className={INPUT}
          />
        </Field>
        <Field label="What it is">
          <Select value={kind} onChange={(event) => setKind(event.target.value as LoadWord)}>
            {LOAD_WORDS.map(([id, word]) => (
              <option key={id} value={id}>
                {word}
              </option>
            ))}
          </Select>
        </Field>
        <Button type="submit" disabled={!name.trim()}>
          Write it into the text
        </Button>
      </form>
    </Fold>
  );
}
