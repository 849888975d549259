'use client';

import { type RefObject, useCallback, useEffect, useState } from 'react';
import { readDraft, writeDraft } from './drafts';

type Control = HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement;
type Kept = Readonly<Record<string, string | boolean>>;

/**
 * Keeps what is typed in a form while it is typed, by the names of its controls, and puts it back when the form is
 * there again. Gives what forgets it: for when it was taken, or given up on purpose.
 */
export function useFormDraft(key: string, form: RefObject<HTMLFormElement | null>): () => void {
  useEffect(() => {
    const here = form.current;
    const text = readDraft(key);
    if (!here || text === null) return;
    const kept = parsed(text);
    putBack(here, kept);
    // What only shows once something else is chosen is there a moment later.
    const later = requestAnimationFrame(() => putBack(here, kept));
    return () => cancelAnimationFrame(later);
  }, [key, form]);
  useEffect(() => {
    const here = form.current;
    if (!here) return;
    const keep = () => writeDraft(key, JSON.stringify(valuesOf(here)));
    here.addEventListener('input', keep);
    here.addEventListener('change', keep);
    return () => {
      here.removeEventListener('input', keep);
      here.removeEventListener('change', keep);
    };
  }, [key, form]);
  return useCallback(() => writeDraft(key, null), [key]);
}

function parsed(text: string): Kept {
  try {
    return JSON.parse(text) as Kept;
  } catch {
    return {};
  }
}

function controls(form: HTMLFormElement): Control[] {
  return [...form.elements].filter(
    (one): one is Control =>
      (one instanceof HTMLInputElement && one.type !== 'file') ||
      one instanceof HTMLSelectElement ||
      one instanceof HTMLTextAreaElement,
  );
}

const isTick = (one: Control): one is HTMLInputElement =>
  one instanceof HTMLInputElement && (one.type === 'checkbox' || one.type === 'radio');

function nameOf(one: Control): string {
  return isTick(one) && one.type === 'radio' ? `${one.name}=${one.value}` : one.name;
}

function valuesOf(form: HTMLFormElement): Kept {
  const named = controls(form).filter((one) => one.name !== '');
  return Object.fromEntries(named.map((one) => [nameOf(one), isTick(one) ? one.checked : one.value]));
}

/** Sets controls as a hand would, so that whatever listens to them hears it. */
function putBack(form: HTMLFormElement, kept: Kept): void {
  for (const one of controls(form)) {
    const value = kept[nameOf(one)];
    if (value === undefined) continue;
    if (isTick(one)) {
      if (typeof value === 'boolean' && one.checked !== value && (value || one.type === 'checkbox'))
        one.click();
    } else if (typeof value === 'string' && one.value !== value) setValue(one, value);
  }
}

function setValue(one: Exclude<Control, never>, value: string): void {
  const owner =
    one instanceof HTMLSelectElement
      ? HTMLSelectElement
      : one instanceof HTMLTextAreaElement
        ? HTMLTextAreaElement
        : HTMLInputElement;
  // The setter of the element itself: React keeps its own on the instance to see changes.
  Object.getOwnPropertyDescriptor(owner.prototype, 'value')?.set?.call(one, value);
  one.dispatchEvent(new Event(one instanceof HTMLSelectElement ? 'change' : 'input', { bubbles: true }));
}

/** A choice beside a form's own controls, kept like them. Null forgets it. */
export function useDraftState<T>(key: string, first: T): [T, (next: T | null) => void] {
  const [value, setValue] = useState<T>(first);
  useEffect(() => {
    const left = readDraft(key);
    if (left !== null) setValue(JSON.parse(left) as T);
  }, [key]);
  const set = useCallback(
    (next: T | null) => {
      writeDraft(key, next === null ? null : JSON.stringify(next));
      if (next !== null) setValue(next);
    },
    [key],
  );
  return [value, set];
}
