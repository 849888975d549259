'use client';

import { useEffect, useRef, useState } from 'react';

/**
 * A value as it was while a finger is down: what comes from elsewhere is not put under it. It is taken once the finger is
 * lifted and what it pressed has been heard. What comes between two touches is taken at once; what then takes its answers
 * by touch bears `takes-touch-later` (`globals.css`), so that the second touch does not answer what it never saw.
 */
export function useHeld<T>(value: T): T {
  const down = useRef(false);
  const latest = useRef(value);
  latest.current = value;
  const [shown, setShown] = useState(value);
  useEffect(() => {
    const press = () => {
      down.current = true;
    };
    let timer: ReturnType<typeof setTimeout>;
    const lift = () => {
      down.current = false;
      timer = setTimeout(() => setShown(latest.current));
    };
    window.addEventListener('pointerdown', press, true);
    for (const end of ['pointerup', 'pointercancel', 'blur']) window.addEventListener(end, lift, true);
    return () => {
      clearTimeout(timer);
      window.removeEventListener('pointerdown', press, true);
      for (const end of ['pointerup', 'pointercancel', 'blur']) window.removeEventListener(end, lift, true);
    };
  }, []);
  if (down.current) return shown;
  if (!Object.is(shown, value)) setShown(value);
  return value;
}
