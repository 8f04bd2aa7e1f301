import type { SessionEvent } from '@yonder/core/session';
import { forget, keep, keptAt, keptUnder } from '../../app/kept/store.ts';

const PREFIX = 'events/';
const keyOf = (sessionId: string) => `${PREFIX}${sessionId}`;

/** Events of a session that the server has not acknowledged; kept on the device, so that a reload or a crash loses none. */
export function unsentEvents(sessionId: string): SessionEvent[] {
  return keptAt<SessionEvent[]>(keyOf(sessionId)) ?? [];
}

function put(sessionId: string, events: readonly SessionEvent[]): void {
  if (events.length === 0) forget(keyOf(sessionId));
  else keep(keyOf(sessionId), events);
}

/** Keeps events until they are acknowledged. */
export function keepUnsent(sessionId: string, events: readonly SessionEvent[]): void {
  put(sessionId, [...unsentEvents(sessionId), ...events]);
}

/** The server has these, or will never take them. */
export function settleEvents(sessionId: string, events: readonly SessionEvent[]): void {
  const gone = new Set(events.map((event) => event.id));
  put(
    sessionId,
    unsentEvents(sessionId).filter((event) => !gone.has(event.id)),
  );
}

/** Sessions of which something is still to be sent. */
export function unsentSessions(): string[] {
  return keptUnder(PREFIX).map(({ key }) => key.slice(PREFIX.length));
}
