import type { z } from 'zod';
import type { sessionEventSchema } from './schema.ts';

/** Something that happened in a session; never changed or deleted. */
export type SessionEvent = z.infer<typeof sessionEventSchema>;
/** What a device can tell of a session. */
export type EventType = SessionEvent['type'];
/** The events of one type. */
export type EventOf<Type extends EventType> = Extract<SessionEvent, { type: Type }>;

type Unstamped<Event> = Event extends SessionEvent ? Omit<Event, 'id' | 'device' | 'seq' | 'at'> : never;
/** What happened, before a device put its stamp on it. */
export type Happening = Unstamped<SessionEvent>;
