'use client';

import { type ReactNode, useEffect, useRef, useState } from 'react';
import { Field, INPUT } from '@/ui/controls';
import { Select } from '@/ui/Select';
import type { KnownVehicle } from './listVehicles';

/** Typing pauses so long before the server is asked, milliseconds. */
const PAUSE_MS = 150;

/**
 * One of the shop's vehicles: those that come first, and a field that finds any other by name or plate where there are
 * more. The choice that stands is never lost over a search.
 */
export function VehicleChoice({
  label,
  name,
  first,
  more,
  chosen,
  onChoose,
  withBoxes = false,
  children,
}: {
  label: string;
  name: string;
  first: readonly KnownVehicle[];
  /** Whether the shop has others. */
  more: boolean;
  chosen: string;
  onChoose: (id: string, vehicle: KnownVehicle | null) => void;
  withBoxes?: boolean;
  /** Options besides vehicles. */
  children?: ReactNode;
}) {
  const [text, setText] = useState('');
  const [found, setFound] = useState<readonly KnownVehicle[] | null>(null);
  const [kept, setKept] = useState<KnownVehicle | null>(null);
  const shown = found ?? first;
  const options = kept && !shown.some((one) => one.id === kept.id) ? [kept, ...shown] : shown;
  useEffect(() => {
    const wanted = text.trim();
    if (wanted === '') return setFound(null);
    const stop = new AbortController();
    const timer = setTimeout(() => {
      fetch(`/api/vehicles?text=${encodeURIComponent(wanted)}${withBoxes ? '&boxes=1' : ''}`, {
        signal: stop.signal,
      })
        .then(async (response) => {
          if (!response.ok) return;
          setFound(((await response.json()) as { vehicles: KnownVehicle[] }).vehicles);
        })
        .catch(() => undefined);
    }, PAUSE_MS);
    return () => {
      stop.abort();
      clearTimeout(timer);
    };
  }, [text, withBoxes]);
  const choose = (id: string) => {
    const vehicle = options.find((one) => one.id === id) ?? null;
    setKept(vehicle);
    onChoose(id, vehicle);
  };
  // Chosen before the page could hear it.
  const field = useRef<HTMLSelectElement>(null);
  const early = useRef(() => {
    const there = field.current?.value;
    if (there !== undefined && there !== chosen) choose(there);
  });
  useEffect(() => early.current(), []);
  const only = found?.length === 1 ? found[0] : undefined;
  useEffect(() => {
    if (!only || only.id === chosen) return;
    setKept(only);
    onChoose(only.id, only);
  }, [only, chosen, onChoose]);
  return (
    <>
      {more ? (
        <Field label="Find it by name or plate">
          <input
            type="search"
            value={text}
            maxLength={80}
            onChange={(event) => setText(event.target.value)}
            onKeyDown={(event) => {
              // Enter here looks for a vehicle and sends no form.
              if (event.key === 'Enter') event.preventDefault();
            }}
            className={INPUT}
            placeholder="tipper, MB 414 …"
          />
        </Field>
      ) : null}
      {found?.length === 0 ? <p role="status">No vehicle answers to “{text.trim()}”.</p> : null}
      <Field label={label}>
        <Select ref={field} name={name} value={chosen} onChange={(event) => choose(event.target.value)}>
          {options.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name} · {one.plate}
            </option>
          ))}
          {children}
        </Select>
      </Field>
    </>
  );
}
