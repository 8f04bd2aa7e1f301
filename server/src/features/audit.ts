import type { Transaction } from 'sequelize';
import type { Database } from '../db/database.ts';
import type { User } from '../http/endpoint.ts';

/** Records who saw or changed what of an athlete; part of the same transaction as the change. */
export async function audit(
  { models }: Database,
  user: User,
  athleteId: string | null,
  action: string,
  transaction?: Transaction,
): Promise<void> {
  await models.audit.create(
    { practiceId: user.practiceId, clinicianId: user.clinicianId, athleteId, action },
    { transaction },
  );
}
