import type { Role } from '@yonder/core/contracts';
import { useAppSelector } from './store.ts';

/** Roles by what they may do. Not read from the contracts: their schemas have no place in the first load. */
export const RANK: Readonly<Record<Role, number>> = {
  'read-only': 0,
  assistant: 1,
  clinician: 2,
  owner: 3,
};

/** Whether the one who is signed in has at least a role; the server decides, the page only spares buttons it would refuse. */
export function useMay(): (least: Role) => boolean {
  const role = useAppSelector((state) => state.session.me?.clinician.role ?? 'owner');
  return (least) => RANK[role] >= RANK[least];
}
