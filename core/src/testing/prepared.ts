import { prepareBuild } from '../builder/index.ts';
import type { Prepared } from '../builder/index.ts';
import type { Case } from '../domain/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import type { Drill } from '../reference/index.ts';

/** A case prepared for building on the reference that ships. */
export function preparedOf(input: Case): Prepared {
  return prepareBuild(bundledReference, input);
}

/** A drill of the reference that ships; throws when there is none of that id. */
export function drillOf(id: string): Drill {
  const drill = bundledReference.drills.get(id);
  if (!drill) throw new Error(`no drill ${id}`);
  return drill;
}
