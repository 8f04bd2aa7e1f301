import type { MethodEffect } from '@yonder/core/contracts';
import { useRef, useState } from 'react';
import { errorText } from '../../app/api.ts';
import { usePreviewMethodMutation } from './methodEndpoints.ts';
import type { MethodOwner } from './methodEndpoints.ts';

type Looked = Pick<MethodEffect, 'changed' | 'judged' | 'routines'>;

export type MethodLook =
  | { kind: 'idle' }
  | ({ kind: 'looking'; total: number | null } & Looked)
  | ({ kind: 'done'; option: string | null } & Looked)
  | { kind: 'failed'; message: string };

/** Looks part by part at whose routine would be built otherwise; says how far it is and can be stopped. */
export function useMethodPreview(owner: MethodOwner, school: string) {
  const [ask] = usePreviewMethodMutation();
  const [look, setLook] = useState<MethodLook>({ kind: 'idle' });
  const run = useRef(0);
  const start = async (option: string | null) => {
    run.current += 1;
    const own = run.current;
    let looked: Looked = { changed: [], judged: 0, routines: 0 };
    setLook({ kind: 'looking', total: null, ...looked });
    try {
      for (let from: number | null = 0; from !== null;) {
        const part: MethodEffect = await ask({ school, option, athleteId: owner, from }).unwrap();
        if (run.current !== own) return; // stopped, or begun anew
        looked = {
          changed: [...looked.changed, ...part.changed],
          judged: looked.judged + part.judged,
          routines: looked.routines + part.routines,
        };
        from = part.next;
        setLook({ kind: 'looking', total: part.total, ...looked });
      }
      setLook({ kind: 'done', option, ...looked });
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
