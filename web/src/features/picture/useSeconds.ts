import { useEffect, useState } from 'react';

/** Seconds since it was set going; 0 while it stands. */
export function useSeconds(going: boolean): number {
  const [seconds, setSeconds] = useState(0);
  useEffect(() => {
    if (!going) return undefined;
    const begun = performance.now();
    let frame = 0;
    const tick = (now: number) => {
      setSeconds((now - begun) / 1000);
      frame = requestAnimationFrame(tick);
    };
    frame = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(frame);
  }, [going]);
  return going ? seconds : 0;
}
