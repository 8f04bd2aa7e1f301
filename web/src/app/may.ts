import { ROLES } from '@yonder/core/contracts';
import type { Role } from '@yonder/core/contracts';
import { useAppSelector } from './store.ts';

/** Whether the one who is signed in has at least a role; the server decides, the page only spares buttons it would refuse. */
export function useMay(): (least: Role) => boolean {
  const role = useAppSelector((state) => state.session.me?.clinician.role ?? 'owner');
  return (least) => ROLES.indexOf(role) >= ROLES.indexOf(least);
}
