import type {
  AppliedTemplate,
  ApplyTemplate,
  TemplateFields,
  TemplateRow,
  TemplateVersion,
} from '@yonder/core/contracts';
import { fitLines, prepareBuild } from '@yonder/core/builder';
import { usualRequest } from '@yonder/core/domain';
import type { RoutineItem } from '@yonder/core/domain';
import { itemsFaults } from '@yonder/core/formats';
import { protocolRequest } from '@yonder/core/protocols';
import type { Reference } from '@yonder/core/reference';
import { wordByWord } from '@yonder/core/takeover';
import { nameOf, reasonText, ruleText } from '@yonder/core/words';
import type { RowOf } from '../../db/schema.ts';
import type { Deps } from '../../deps.ts';
import { ApiProblem, refuse } from '../../http/problem.ts';
import { newId } from '../../work/newId.ts';
import type { Unit } from '../../work/unit.ts';
import { assessRecord, loadRecord } from '../athletes/record.ts';

/** A protocol of the practice as the API shows it. */
function templateRow(row: RowOf<'templates'>): TemplateRow {
  const { id, name, sport, role, author, purpose, notFor, occasion, sections, variables } = row;
  const { structure, request, items, version, savedBy, savedOn } = row;
  const about = { id, name, sport, role, author, purpose, notFor, occasion, sections, variables };
  return { ...about, structure, version, savedBy, savedOn, request, items };
}

/** All protocols of the practice by name. */
export async function listTemplates({ rows }: Unit): Promise<TemplateRow[]> {
  return (await rows.templates.all({}, { sort: ['name'] })).map(templateRow);
}

/** One protocol; 404 when the practice has none of that id. */
export async function readTemplate({ rows }: Unit, id: string): Promise<TemplateRow> {
  return templateRow(await rows.templates.need({ id }, 'Template'));
}

/** Every version that a protocol had, newest first. */
export async function templateVersions({ rows }: Unit, id: string): Promise<TemplateVersion[]> {
  await rows.templates.need({ id }, 'Template');
  const versions = await rows.template_versions.all({ templateId: id }, { sort: [['number', 'DESC']] });
  return versions.map(({ number, savedBy, savedOn, content }) => ({ number, savedBy, savedOn, content }));
}

/** Throws for unknown drills and structures (400), and for a name another protocol has (409). */
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

/** A protocol is no routine of anybody's: its lines have no past to go on from. */
const kept = (unit: Unit, { items, author, ...template }: TemplateFields) => ({
  ...template,
  author: author === '' ? unit.actor.name : author,
  items: items.map(({ id: _id, from: _from, ...item }) => item),
});

/** Keeps what a protocol was in this version. */
async function keepVersion(
  unit: Unit,
  templateId: string,
  number: number,
  content: TemplateFields,
): Promise<void> {
  const saved = { savedBy: unit.actor.name, savedOn: unit.today };
  await unit.rows.template_versions.insert({ id: newId(), templateId, number, content, ...saved });
}

/** Keeps a protocol. */
export async function addTemplate(
  unit: Unit,
  { id, ...template }: TemplateFields & { id: string },
): Promise<TemplateRow> {
  await check(unit, template, id);
  const content = kept(unit, template);
  const saved = { savedBy: unit.actor.name, savedOn: unit.today };
  const row = await unit.rows.templates.insert({ id, ...content, ...saved });
  await keepVersion(unit, id, row.version, content);
  return templateRow(row);
}

/** Changes a protocol on the version it was read at; what it was is kept. */
export async function changeTemplate(
  unit: Unit,
  id: string,
  { version, ...template }: TemplateFields & { version: number },
): Promise<TemplateRow> {
  await check(unit, template, id);
  const content = kept(unit, template);
  const changes = { ...content, savedBy: unit.actor.name, savedOn: unit.today };
  const row = await unit.rows.templates.change({ id }, version, changes, templateRow);
  await keepVersion(unit, id, row.version, content);
  return templateRow(row);
}

/** Removes a protocol on its version. */
export async function removeTemplate({ rows }: Unit, id: string, version: number): Promise<void> {
  await rows.templates.remove({ id }, version, templateRow);
}

type Made = { items: readonly RoutineItem[]; structure: string; changed: string[] };

/** The author's lines but for what cannot stand for the athlete, and what is otherwise than written. */
function fitted(
  reference: Reference,
  template: TemplateRow,
  prepared: ReturnType<typeof prepareBuild>,
): Made {
  const { items, changes } = fitLines(prepared, template.items);
  return {
    structure: template.structure,
    items,
    changed: changes
      .filter(({ what }) => what !== 'kept')
      .map(({ drill, instead, why }) =>
        [
          nameOf(reference, drill),
          instead ? ` → ${nameOf(reference, instead)}` : '',
          `: ${reasonText(reference, why)}`,
        ].join(''),
      ),
  };
}

/**
 * Uses a protocol for one athlete, fitted or word by word, as a draft of an occasion: nothing is issued, and a draft that is
 * there stays. Says what is otherwise than written.
 */
export async function applyTemplate(
  deps: Deps,
  unit: Unit,
  id: string,
  input: ApplyTemplate,
): Promise<AppliedTemplate> {
  const { athleteId, occasion } = input;
  const template = await readTemplate(unit, id);
  const how = input.how ?? (template.variables.level === 'athlete' ? 'fitted' : 'word-by-word');
  const record = await loadRecord(unit, athleteId, unit.today);
  unit.concerns(athleteId);
  const assessment = await assessRecord(deps, unit, record);
  const { reference } = assessment;
  const own = usualRequest(record.case.request, occasion, record.athlete);
  const request = protocolRequest(template, own, occasion);
  const prepared = prepareBuild(assessment, request);
  const word = (): Made => {
    const { items, held } = wordByWord(prepared, template.items);
    return {
      items,
      structure: template.structure,
      changed: held.map(
        ({ fault, instead }) =>
          `${nameOf(reference, fault.drill)}: ${ruleText(reference, fault.rule, fault.about)}${instead ? ` Nearest allowed: ${nameOf(reference, instead.drill)}.` : ''}`,
      ),
    };
  };
  const made = how === 'fitted' ? fitted(reference, template, prepared) : word();
  if (made.items.length === 0)
    return { athleteId, stored: false, lines: 0, changed: ['Nothing that is allowed fits.'] };
  const where = { athleteId, occasion };
  const there = await unit.rows.routine_drafts.one(where, { lock: true });
  const { sections } = template;
  const draft = {
    request,
    structure: made.structure,
    sections,
    items: made.items.map((item) => ({ ...item, id: newId() })),
    left: [],
  };
  if (!there) await unit.rows.routine_drafts.insert({ ...where, draft });
  return { athleteId, stored: !there, lines: made.items.length, changed: made.changed };
}
