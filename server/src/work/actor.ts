import type { Role } from '@yonder/core/contracts';
import { ROLES } from '@yonder/core/contracts';

/**
 * Who does something: a clinician with a role, an athlete by a link, a device, or the system itself. Every write and
 * every audit row carries kind and id.
 */
export type Actor =
  | { readonly kind: 'clinician'; readonly id: string; readonly name: string; readonly role: Role }
  | { readonly kind: 'athlete'; readonly id: string; readonly name: string; readonly athleteId: string }
  | { readonly kind: 'device'; readonly id: string; readonly name: string }
  | { readonly kind: 'system'; readonly id: null; readonly name: string };

/** The product itself, where nobody acts. */
export const SYSTEM: Actor = { kind: 'system', id: null, name: 'Yonder Ridge' };

/** Who may call an endpoint: anybody, or clinicians from a role upwards. */
export type Least = 'public' | Role;

/** May an actor do what asks for at least this role? The system may do everything; links and devices have doors of their own. */
export function mayDo(actor: Actor, least: Least): boolean {
  if (least === 'public' || actor.kind === 'system') return true;
  return actor.kind === 'clinician' && ROLES.indexOf(actor.role) >= ROLES.indexOf(least);
}
