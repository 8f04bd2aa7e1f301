import { useRef, useState } from 'react';
import { errorText } from './api.ts';

/** One answer of a look: how much of the whole it covers, and where to go on (null at the end). */
interface Part {
  readonly judged: number;
  readonly total: number;
  readonly next: number | null;
}

/** A look through a list: not begun, under way, done with what was asked, or failed. */
export type Look<Asked, P extends Part> =
  | { kind: 'idle' }
  | { kind: 'looking'; judged: number; total: number | null; parts: readonly P[] }
  | { kind: 'done'; asked: Asked; judged: number; parts: readonly P[] }
  | { kind: 'failed'; message: string };

/** Looks through a list part by part; says how far it is and can be stopped. A later look overtakes an earlier one. */
export function useLook<Asked, P extends Part>(ask: (asked: Asked, from: number) => Promise<P>) {
  const [look, setLook] = useState<Look<Asked, P>>({ kind: 'idle' });
  const run = useRef(0);
  const start = async (asked: Asked) => {
    run.current += 1;
    const own = run.current;
    const parts: P[] = [];
    let judged = 0;
    setLook({ kind: 'looking', judged, total: null, parts: [] });
    try {
      for (let from: number | null = 0; from !== null;) {
        const part = await ask(asked, from);
        if (run.current !== own) return; // stopped, or begun anew
        parts.push(part);
        judged += part.judged;
        from = part.next;
        setLook({ kind: 'looking', judged, total: part.total, parts: [...parts] });
      }
      setLook({ kind: 'done', asked, judged, parts });
    } catch (error) {
      if (run.current === own) setLook({ kind: 'failed', message: errorText(error) });
    }
  };
  const stop = () => {
    run.current += 1;
    setLook({ kind: 'idle' });
  };
  return { look, start, stop };
}
