import { useForm } from '@mantine/form';
import type { UseFormInput, UseFormReturnType } from '@mantine/form';
import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { forget, keep, keptAt, keptRevision, onKept } from './store.ts';
import { unsaved } from './unsaved.ts';

/** Draws anew whenever something kept on this device changes. */
export function useKeptRevision(): number {
  return useSyncExternalStore(onKept, keptRevision);
}

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** What a form shows beside its fields: that something typed earlier was put back, and how to throw it away. */
export interface Restored {
  readonly restored: boolean;
  readonly discard: () => void;
}

/** Says to the guard of the page that something typed is not stored, while it is not. */
function useUnsaved(key: string, label: string, dirty: boolean, discard: () => void): void {
  useEffect(() => {
    if (!dirty) return undefined;
    unsaved.set(key, { label, discard });
    return () => void unsaved.delete(key);
  }, [key, label, dirty, discard]);
}

/**
 * A value typed by hand, kept on this device under a key until `done` says that the server has it. It is there again
 * after a reload, a crash or another sign-in; leaving the page with it asks.
 */
export function useKeptState<T>(
  key: string,
  label: string,
  initial: T,
): Restored & { value: T; set: (value: T) => void; done: () => void } {
  const [value, show] = useState<T>(() => keptAt<T>(key) ?? initial);
  const [restored, setRestored] = useState(() => {
    const before = keptAt<T>(key);
    return before !== undefined && !same(before, initial);
  });
  const done = useCallback(() => {
    forget(key);
    unsaved.delete(key); // at once: the page may be left before it is drawn again
    setRestored(false);
  }, [key]);
  const set = (next: T) => {
    show(next);
    if (same(next, initial)) done();
    else keep(key, next);
  };
  const base = JSON.stringify(initial);
  const discard = useCallback(() => {
    show(JSON.parse(base) as T);
    done();
  }, [base, done]);
  useUnsaved(key, label, !same(value, initial) && keptAt(key) !== undefined, discard);
  return { value, set, restored, discard, done };
}

/** A form of the interface library whose values are kept on this device until `done`. */
export function useKeptForm<T extends Record<string, unknown>>(
  key: string,
  label: string,
  input: UseFormInput<T>,
): Restored & { form: UseFormReturnType<T>; done: () => void } {
  const initial = input.initialValues as T;
  const base = useMemo(() => JSON.stringify(initial), [initial]);
  const [before] = useState(() => keptAt<T>(key));
  const [dirty, setDirty] = useState(before !== undefined && !same(before, initial));
  const [restored, setRestored] = useState(dirty);
  // What the server said is frozen in the cache, and the form changes its copy in place.
  const form = useForm<T>({
    ...input,
    initialValues: useMemo(() => structuredClone(initial), [initial]),
    onValuesChange: (values, previous) => {
      input.onValuesChange?.(values, previous);
      const differs = JSON.stringify(values) !== base;
      if (differs) keep(key, values);
      else forget(key);
      setDirty(differs);
    },
  });
  // The library gives new functions with every render; what is put back is put back once.
  // It also lays new values over the old ones: a field that the new ones do not have would stay as it was.
  const { setValues, getValues } = form;
  const put = useRef((whole: T) => setValues(whole));
  useEffect(() => {
    put.current = (whole) =>
      setValues({
        ...Object.fromEntries(Object.keys(getValues()).map((name) => [name, undefined])),
        ...whole,
      });
  });
  useEffect(() => {
    if (before !== undefined) put.current(before);
  }, [before]);
  const done = useCallback(() => {
    forget(key);
    unsaved.delete(key);
    setDirty(false);
    setRestored(false);
  }, [key]);
  const discard = useCallback(() => {
    put.current(JSON.parse(base) as T);
    done();
  }, [base, done]);
  useUnsaved(key, label, dirty, discard);
  return { form, restored, discard, done };
}
