import { useEffect } from 'react';
import { settleEvents, unsentEvents, unsentSessions } from './outbox.ts';
import { useAppendEventsMutation } from './sessionEndpoints.ts';

/** Sends what earlier pages of this device could not; what somebody else left behind stays until they sign in. */
export function useSendUnsent(): void {
  const [append] = useAppendEventsMutation();
  useEffect(() => {
    for (const sessionId of unsentSessions()) {
      const events = unsentEvents(sessionId).slice(0, 500);
      append({ sessionId, events })
        .unwrap()
        .then(
          () => settleEvents(sessionId, events),
          () => undefined, // the session's own page says why
        );
    }
  }, [append]);
}
