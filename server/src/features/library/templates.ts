import type { TemplateFields, TemplateRow } from '@yonder/core/contracts';
import { itemsFaults } from '@yonder/core/formats';
import type { RowOf } from '../../db/schema.ts';
import { ApiProblem, refuse } from '../../http/problem.ts';
import type { Unit } from '../../work/unit.ts';

/** A template as the API shows it. */
function templateRow(row: RowOf<'templates'>): TemplateRow {
  const { id, name, sport, role, structure, version, savedBy, savedOn, request, items } = row;
  return { id, name, sport, role, structure, version, savedBy, savedOn, request, items };
}

/** All templates of the practice by name. */
export async function listTemplates({ rows }: Unit): Promise<TemplateRow[]> {
  return (await rows.templates.all({}, { sort: ['name'] })).map(templateRow);
}

/** One template; 404 when the practice has none of that id. */
export async function readTemplate({ rows }: Unit, id: string): Promise<TemplateRow> {
  return templateRow(await rows.templates.need({ id }, 'Template'));
}

/** Throws for unknown drills and structures (400), and for a name another template has (409). */
async function check(unit: Unit, template: TemplateFields, own: string): Promise<void> {
  const { reference } = await unit.practice();
  refuse([
    ...itemsFaults(reference, template.items),
    ...(reference.structures.has(template.structure)
      ? []
      : [{ path: '$.structure', message: `unknown structure "${template.structure}"` }]),
  ]);
  const namesake = await unit.rows.templates.one({ name: template.name });
  if (namesake && namesake.id !== own)
    throw new ApiProblem('already-exists', {
      detail: `There is a template "${template.name}" already; name this one otherwise.`,
    });
}

/** A template is no routine of anybody's: its items have no line to go on with. */
const withoutIds = ({ items, ...template }: TemplateFields) => ({
  ...template,
  items: items.map(({ id: _id, from: _from, ...item }) => item),
});

/** Keeps a template. */
export async function addTemplate(
  unit: Unit,
  { id, ...template }: TemplateFields & { id: string },
): Promise<TemplateRow> {
  await check(unit, template, id);
  const saved = { savedBy: unit.actor.name, savedOn: unit.today };
  return templateRow(await unit.rows.templates.insert({ id, ...withoutIds(template), ...saved }));
}

/** Changes a template on the version it was read at. */
export async function changeTemplate(
  unit: Unit,
  id: string,
  { version, ...template }: TemplateFields & { version: number },
): Promise<TemplateRow> {
  await check(unit, template, id);
  const saved = { savedBy: unit.actor.name, savedOn: unit.today };
  const changes = { ...withoutIds(template), ...saved };
  return templateRow(await unit.rows.templates.change({ id }, version, changes, templateRow));
}

/** Removes a template on its version. */
export async function removeTemplate({ rows }: Unit, id: string, version: number): Promise<void> {
  await rows.templates.remove({ id }, version, templateRow);
}
