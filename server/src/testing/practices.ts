import { openDatabase } from '../db/database.ts';
import { hashPassword } from '../features/auth/password.ts';
import { SYSTEM } from '../work/actor.ts';
import { newId } from '../work/newId.ts';
import { ROLES } from '@yonder/core/contracts';
import type { Role } from '@yonder/core/contracts';

export const PASSWORD = 'ridge-and-valley';
const PRACTICES = ['north', 'south'] as const;
export type PracticeName = (typeof PRACTICES)[number];

/** The sign-in of a practice's clinician of a role. */
export const emailOf = (practice: PracticeName, role: Role = 'owner') => `${role}@${practice}.example`;

/** Two practices with a clinician of every role each. */
export async function addTestPractices(databaseUrl: string): Promise<void> {
  const database = openDatabase(databaseUrl);
  const passwordHash = await hashPassword(PASSWORD);
  for (const name of PRACTICES) {
    const practiceId = newId();
    await database.inTransaction(async ({ tables }) => {
      const rows = tables({ practiceId, actor: SYSTEM });
      await rows.practices.insert({
        id: practiceId,
        name,
        timeZone: 'UTC',
        seasonStarts: '10-01',
        painLimits: null,
        doseShares: [],
        painPatterns: null,
      });
      for (const role of ROLES)
        await rows.clinicians.insert({
          id: newId(),
          email: emailOf(name, role),
          name: name === 'north' ? 'R. Halloran' : 'T. Okafor',
          passwordHash,
          role,
          active: true,
          sessionEpoch: 1,
        });
    });
  }
  await database.close();
}
