import type { FigureEffect } from '@yonder/core/contracts';
import { useRef, useState } from 'react';
import { errorText } from '../../app/api.ts';
import { usePreviewFiguresMutation } from './figureEndpoints.ts';
import type { NewFigure } from './figureEndpoints.ts';

export type Look =
  | { kind: 'idle' }
  | { kind: 'looking'; judged: number; total: number | null }
  | { kind: 'done'; value: number; judged: number; changed: FigureEffect['changed'] }
  | { kind: 'failed'; message: string };

/** Looks through all athletes part by part at what a figure would change; says how far it is and can be stopped. */
export function usePreview() {
  const [ask] = usePreviewFiguresMutation();
  const [look, setLook] = useState<Look>({ kind: 'idle' });
  const run = useRef(0);
  const start = async (input: NewFigure) => {
    run.current += 1;
    const own = run.current;
    setLook({ kind: 'looking', judged: 0, total: null });
    const changed: FigureEffect['changed'][number][] = [];
    let judged = 0;
    let from: number | null = 0;
    try {
      while (from !== null) {
        const part: FigureEffect = await ask({ set: [input], from }).unwrap();
        if (run.current !== own) return; // stopped, or begun anew
        judged += part.judged;
        changed.push(...part.changed);
        from = part.next;
        setLook({ kind: 'looking', judged, total: part.total });
      }
      setLook({ kind: 'done', value: input.value, judged, changed });
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
