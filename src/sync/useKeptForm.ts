'use client';

/**
 * Forms of this application: values and fields by react-hook-form, what is typed kept in the browser while it is typed,
 * and taken by one function, which answers in words where it does not.
 */
import { type BaseSyntheticEvent, useEffect, useRef, useState } from 'react';
import {
  type DefaultValues,
  type FieldValues,
  type Path,
  type PathValue,
  type UseFormReturn,
  useForm,
} from 'react-hook-form';
import { readKept, writeDraft } from './drafts';

/** Whether what was written was taken, or why not; `field` is where it lies, if it lies in one. */
export type Taken =
  | { readonly ok: true }
  | { readonly ok: false; readonly message: string; readonly field?: string | undefined };

export interface KeptForm<T extends FieldValues>
  extends Pick<UseFormReturn<T>, 'register' | 'control' | 'watch' | 'setValue' | 'getValues'> {
  /** Why it was not taken; null where it was, or was not tried. */
  readonly problem: string | null;
  /** It is being taken at the moment. */
  readonly busy: boolean;
  readonly submit: (event?: BaseSyntheticEvent) => Promise<void>;
  /** Back to how it began, and nothing of it kept: given up on purpose. */
  readonly forget: () => void;
}

/** Fields hold what is typed, as text; a tick is true or false. */
export function useKeptForm<T extends FieldValues>({
  keep,
  first,
  stays = false,
  take,
}: {
  /** Under what the words are kept until they are taken; null where they are too few to be kept. */
  keep: string | null;
  /** What stands in it. A field that begins empty is left out, so that what was typed before the page ran stays. */
  first?: DefaultValues<T>;
  /** It shows what is known: what was taken stays in it. */
  stays?: boolean;
  take: (values: T) => Taken | Promise<Taken>;
}): KeptForm<T> {
  const form = useForm<T>(
    first === undefined
      ? {}
      : { defaultValues: first, values: first as T, resetOptions: { keepDirtyValues: true } },
  );
  const { setFocus, setValue, getValues, watch, reset, register, control, handleSubmit, formState } = form;
  // Reading it makes the package follow which fields a person has changed: those stay when what stands in it changes.
  void formState.dirtyFields;
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const begin = useRef(first);
  begin.current = first;
  useEffect(() => {
    if (keep === null) return;
    const kept = readKept<Record<string, unknown>>(keep);
    for (const [name, value] of Object.entries(kept)) {
      const field = name as Path<T>;
      if (getValues(field) !== value) {
        setValue(field, value as PathValue<T, Path<T>>, { shouldDirty: true });
      }
    }
    // Without a name it was no person that changed it.
    const watching = watch((values, { name }) => {
      if (name !== undefined) writeDraft(keep, JSON.stringify(values));
    });
    return () => watching.unsubscribe();
  }, [keep, getValues, setValue, watch]);
  const end = (values: DefaultValues<T> | undefined) => {
    reset(values as T | undefined);
    setProblem(null);
    if (keep !== null) writeDraft(keep, null);
  };
  const forget = () => end(begin.current);
  const submit = handleSubmit(async (values) => {
    setBusy(true);
    const taken = await take(values);
    setBusy(false);
    if (taken.ok) return stays ? end(values as DefaultValues<T>) : forget();
    setProblem(taken.message);
    if (taken.field !== undefined && getValues(taken.field as Path<T>) !== undefined) {
      setFocus(taken.field as Path<T>);
    }
  });
  return { register, control, watch, setValue, getValues, problem, busy, submit, forget };
}

/** A field as text without spaces around it; one that was never drawn is empty. */
export function textOf(value: unknown): string {
  return typeof value === 'string' ? value.trim() : '';
}
