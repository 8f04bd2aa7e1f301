import { useEffect, useRef, useState } from 'react';

/** Seconds, to a tenth, that something has been open: asked for when it is answered. */
export function useOpenFor(): () => number {
  const opened = useRef(0);
  useEffect(() => {
    opened.current = performance.now();
  }, []);
  return () => Math.round((performance.now() - opened.current) / 100) / 10;
}

/** Whole seconds since this was first shown, counted on the screen. */
export function useClock(): number {
  const openFor = useOpenFor();
  const [seconds, setSeconds] = useState(0);
  useEffect(() => {
    const timer = setInterval(() => setSeconds(Math.floor(openFor())), 1000);
    return () => clearInterval(timer);
  });
  return seconds;
}
