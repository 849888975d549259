'use client';

import { useMemo, useState } from 'react';
import { type Clash, checkCircuit, clashesWith, fitted } from '#core/circuit';
import type { CircuitFile } from '#core/format';

type Answer = 'same' | 'another';

interface Asked extends Clash {
  /** Null while nobody has said. */
  readonly answer: Answer | null;
}

export interface Clashes {
  readonly asked: readonly Asked[];
  /** So many are not answered yet. */
  readonly open: number;
  readonly say: (ids: readonly string[], answer: Answer) => void;
  /** The circuit as it fits the vehicle by the answers, or what is wrong with them. */
  readonly fit: (circuit: CircuitFile) => { ok: true; circuit: CircuitFile } | { ok: false; message: string };
}

/** Whether a text names a part by this id; without one, the reader gave it the next free. */
function isTyped(text: string, id: string): boolean {
  const plain = id.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
  return new RegExp(`(^|[\\s,#])${plain}(?![\\w-])`, 'm').test(text);
}

/** What a new circuit, or a new version, names that the vehicle has under the same id: asked once, part by part. */
export function useClashes(
  text: string,
  circuit: CircuitFile | null,
  all: readonly CircuitFile[],
  saved: CircuitFile | null,
): Clashes {
  const others = useMemo(() => all.filter(({ id }) => id !== saved?.id), [all, saved]);
  const [answers, setAnswers] = useState<Readonly<Record<string, Answer>>>({});
  const asked = useMemo(
    () =>
      (circuit ? clashesWith(circuit, others, saved) : []).flatMap((clash): Asked[] => {
        // What nobody named is nobody's part but this circuit's.
        if (!isTyped(text, clash.id)) return [];
        return [{ ...clash, answer: clash.apart === null ? (answers[clash.id] ?? null) : 'another' }];
      }),
    [text, circuit, others, saved, answers],
  );
  return {
    asked,
    open: asked.filter(({ answer }) => answer === null).length,
    say: (ids, answer) =>
      setAnswers((before) => ({ ...before, ...Object.fromEntries(ids.map((id) => [id, answer])) })),
    fit: (file) => {
      const known = new Set(others.flatMap(({ parts }) => parts.map(({ id }) => id)));
      const battery = file.parts.find(({ kind }) => kind === 'battery');
      const made = fitted(file, others, {
        same: asked.filter(({ answer }) => answer === 'same').map(({ id }) => id),
        ownBattery: battery !== undefined && !known.has(battery.id) && isTyped(text, battery.id),
        saved,
      });
      const points = made.torn.map((id) => file.nodes.find((node) => node.id === id)?.name ?? id);
      if (points.length > 0) {
        return {
          ok: false,
          message: `What meets at ${points.join(' and at ')} here does not meet on this vehicle, so these cannot all be the same parts. Draw what lies between, or say that one of them is another part.`,
        };
      }
      const checked = checkCircuit(made.circuit);
      return checked.ok
        ? { ok: true, circuit: checked.value }
        : { ok: false, message: checked.problems.map((one) => one.message).join(' ') };
    },
  };
}
