import { kitWordsOf } from './kit.ts';
import { jolts, loadOn } from './loads.ts';
import type { Drill, Precaution } from './types.ts';

/** The traits by which a precaution's handling decides. */
export type Described = Pick<
  Drill,
  | 'id'
  | 'ladder'
  | 'position'
  | 'loadClass'
  | 'contraction'
  | 'category'
  | 'equipment'
  | 'equipmentAny'
  | 'loadRegions'
>;

type Predicate = NonNullable<Precaution['forbids']>[number];

/** A region carries a drill's load from this share on. */
const CARRIES = 0.5;

const among = <T>(wanted: readonly T[] | undefined, has: T): boolean => !wanted || wanted.includes(has);

function meets(drill: Described, wanted: Predicate): boolean {
  return (
    among(wanted.position, drill.position) &&
    (among(wanted.loadClass, drill.loadClass) ||
      (wanted.loadClass?.includes('impact') && jolts(drill)) === true) &&
    among(wanted.contraction, drill.contraction) &&
    among(wanted.category, drill.category) &&
    among(wanted.ladder, drill.ladder) &&
    among(wanted.drill, drill.id) &&
    (!wanted.equipment || wanted.equipment.some((kit) => kitWordsOf(drill).includes(kit))) &&
    (!wanted.loads || wanted.loads.some((region) => loadOn(drill, region) >= CARRIES))
  );
}

/** Is the drill, by its own traits, something that the precaution's handling forbids? */
export function handlingForbids(precaution: Precaution, drill: Described): boolean {
  return precaution.forbids?.some((wanted) => meets(drill, wanted)) ?? false;
}

/** Is it something that the handling asks for instead? What it forbids it does not ask for. */
export function handlingAsksFor(precaution: Precaution, drill: Described): boolean {
  return (
    !handlingForbids(precaution, drill) &&
    (precaution.asksFor?.some((wanted) => meets(drill, wanted)) ?? false)
  );
}
