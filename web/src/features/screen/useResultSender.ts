import { useEffect, useSyncExternalStore } from 'react';
import { useBundledReference } from '../../app/reference.tsx';
import { useAppDispatch } from '../../app/store.ts';
import type { Reference } from '@yonder/core/reference';
import type { ResultInput } from '@yonder/core/contracts';
import { ResultSender } from './ResultSender.ts';
import { screeningsApi } from './screeningEndpoints.ts';
import type { TypedResult } from './typedResults.ts';

type Dispatch = ReturnType<typeof useAppDispatch>;
const senders = new WeakMap<Dispatch, ResultSender>();

function senderOf(dispatch: Dispatch, reference: Reference): ResultSender {
  const known = senders.get(dispatch);
  if (known) return known;
  const { openScreening, putResult, removeResult } = screeningsApi.endpoints;
  const keyOf = (screeningId: string, { athleteId, test, side }: TypedResult) => ({
    athleteId,
    screeningId,
    test,
    side,
  });
  const sender = new ResultSender(
    {
      open: async (athleteId, date) =>
        (await dispatch(openScreening.initiate({ athleteId, date })).unwrap()).id,
      put: (visit, typed, body: ResultInput) =>
        dispatch(putResult.initiate({ ...keyOf(visit, typed), body })).unwrap(),
      remove: (visit, typed, version) =>
        dispatch(removeResult.initiate({ ...keyOf(visit, typed), version })).unwrap(),
    },
    reference,
  );
  senders.set(dispatch, sender);
  return sender;
}

/** The one sender of typed results of this page. */
export function useResultSender(): ResultSender {
  const dispatch = useAppDispatch();
  const sender = senderOf(dispatch, useBundledReference());
  useSyncExternalStore(sender.subscribe, sender.changes);
  return sender;
}

/** Sends what earlier pages of this device could not, at once and whenever the network comes back. */
export function useSendTyped(): void {
  const sender = useResultSender();
  useEffect(() => {
    const send = () => sender.sendAll();
    send();
    window.addEventListener('online', send);
    return () => window.removeEventListener('online', send);
  }, [sender]);
}
