import type { TemplateInput, TemplateRow } from '@yonder/core/contracts';
import { itemsFaults } from '@yonder/core/formats';
import { UniqueConstraintError } from 'sequelize';
import type { TemplateRecord } from '../../db/models.ts';
import type { Deps } from '../../deps.ts';
import type { User } from '../../http/endpoint.ts';
import { ApiProblem, notFound } from '../../http/problem.ts';
import { updateVersioned } from '../../http/versioned.ts';
import { audit } from '../audit.ts';
import { referenceOf } from '../figures/practice.ts';

function templateRow(record: TemplateRecord): TemplateRow {
  const { id, name, sport, role, structure, version, savedBy, savedOn } = record;
  return {
    id,
    name,
    sport,
    role,
    structure,
    version,
    savedBy,
    savedOn,
    request: record.request as TemplateRow['request'],
    items: record.items as TemplateRow['items'],
  };
}

export async function listTemplates(deps: Deps, user: User): Promise<TemplateRow[]> {
  const rows = await deps.database.models.templates.findAll({
    where: { practiceId: user.practiceId },
    order: [['name', 'ASC']],
  });
  return rows.map((row) => templateRow(row.get({ plain: true })));
}

/** Keeps a template, or changes one on the version it was read at. Names differ within a practice. */
export async function saveTemplate(
  deps: Deps,
  user: User,
  { version, ...template }: TemplateInput,
  id?: string,
): Promise<TemplateRow> {
  const { database } = deps;
  const reference = await referenceOf(deps.reference, database, user.practiceId);
  const errors = itemsFaults(reference, template.items);
  if (!reference.structures.has(template.structure))
    errors.push({ path: '$.structure', message: `unknown structure "${template.structure}"` });
  if (errors.length > 0) throw new ApiProblem('invalid-request', { errors });
  const saved = { ...template, items: [...template.items], savedBy: user.name, savedOn: deps.today() };
  try {
    return await database.inTransaction(async (transaction) => {
      const row =
        id === undefined
          ? (
              await database.models.templates.create(
                { ...saved, practiceId: user.practiceId },
                { transaction },
              )
            ).get({ plain: true })
          : await updateVersioned(
              database.models.templates,
              { id, practiceId: user.practiceId },
              version ?? 0,
              saved,
              templateRow,
              transaction,
            );
      await audit(database, user, null, 'template.save', transaction);
      return templateRow(row);
    });
  } catch (error) {
    if (error instanceof UniqueConstraintError)
      throw new ApiProblem('already-exists', {
        detail: `There is a template "${template.name}" already; name this one otherwise.`,
      });
    throw error;
  }
}

export async function removeTemplate(deps: Deps, user: User, id: string): Promise<void> {
  const gone = await deps.database.models.templates.destroy({ where: { id, practiceId: user.practiceId } });
  if (gone === 0) throw notFound('Template');
  await audit(deps.database, user, null, 'template.remove');
}
