import type { BuildReport } from '@yonder/core/builder';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useAppSelector } from '../../app/store.ts';
import { background, compute } from '../../workers/client.ts';
import type { Asked, Interims } from '../../workers/protocol.ts';
import { buildOnServer } from './serverBuild.ts';

export type BuildState =
  | { kind: 'idle' }
  | { kind: 'solving'; interim: Interims['build'] | null }
  | { kind: 'done'; report: BuildReport }
  | { kind: 'failed'; message: string };

/**
 * Builds in the worker: warmed when the page opens, stale solves cancelled, interim answers shown. Where the browser
 * cannot solve, the server does, with the same core.
 */
export function useBuilder(athleteId: string, onBuilt: (report: BuildReport) => void) {
  const csrfToken = useAppSelector((state) => state.session.me?.csrfToken) ?? '';
  const [state, setState] = useState<BuildState>({ kind: 'idle' });
  const running = useRef<AbortController | null>(null);
  useEffect(() => {
    compute.call('warm', null, {}).catch(() => undefined); // a cold start is slower, not wrong
    background.call('warm', null, {}).catch(() => undefined);
    return () => running.current?.abort();
  }, []);
  const cancel = useCallback(() => {
    running.current?.abort();
    running.current = null;
    setState({ kind: 'idle' });
  }, []);
  const build = useCallback(
    ({ subject, request }: Asked) => {
      running.current?.abort();
      const controller = new AbortController();
      running.current = controller;
      setState({ kind: 'solving', interim: null });
      const { signal } = controller;
      const onInterim = (interim: Interims['build']) => setState({ kind: 'solving', interim });
      compute
        .call('build', subject, { request }, { signal, onInterim })
        .catch((error: Error) => {
          if (signal.aborted) throw error;
          const on = subject.case.today;
          return buildOnServer({ athleteId, on, request, csrfToken, signal, onInterim });
        })
        .then(
          (report) => {
            if (controller.signal.aborted) return;
            running.current = null;
            setState({ kind: 'done', report });
            onBuilt(report);
          },
          (error: Error) => {
            if (!controller.signal.aborted) setState({ kind: 'failed', message: error.message });
          },
        );
    },
    [athleteId, csrfToken, onBuilt],
  );
  /** Cancels a solve that the input has overtaken; what is shown stays. */
  const overtaken = useCallback(() => {
    if (running.current) cancel();
  }, [cancel]);
  return { state, build, cancel, overtaken };
}
