import type { AthleteFields } from '@yonder/core/contracts';
import { kitWords } from '@yonder/core/formats';
import type { Reference } from '@yonder/core/reference';
import { refuse } from '../../http/problem.ts';
import type { FieldFault } from '../../http/problem.ts';

/** What the reference and the calendar say against typed athlete fields; throws a problem naming each field. */
export function checkAthleteFields(reference: Reference, fields: AthleteFields, today: string): void {
  const errors: FieldFault[] = [];
  if (fields.birthDate >= today) errors.push({ path: '$.birthDate', message: 'must be before today' });
  fields.tasks.forEach((task, i) => {
    if (!reference.demands.has(task.id))
      errors.push({ path: `$.tasks[${i}].id`, message: `unknown task "${task.id}"` });
  });
  fields.exposure.forEach(({ action }, i) => {
    if (!reference.patterns.has(action))
      errors.push({ path: `$.exposure[${i}].action`, message: `unknown action "${action}"` });
  });
  const kit = kitWords(reference);
  const checkKit = (words: readonly string[], at: string) =>
    words.forEach((word, i) => {
      if (!kit.has(word)) errors.push({ path: `${at}[${i}]`, message: `unknown kit "${word}"` });
    });
  checkKit(fields.kit, '$.kit');
  fields.places.forEach((place, i) => checkKit(place.kit, `$.places[${i}].kit`));
  fields.dislikes.forEach((id, i) => {
    if (!reference.drills.has(id))
      errors.push({ path: `$.dislikes[${i}]`, message: `unknown drill "${id}"` });
  });
  refuse(errors);
}
