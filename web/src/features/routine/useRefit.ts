import { variantRequest } from '@yonder/core/builder';
import type { Variant } from '@yonder/core/builder';
import type { TemplateRow } from '@yonder/core/contracts';
import type { BuildRequest, RoutineItem } from '@yonder/core/domain';
import { isLine, OWN_WORDS } from '@yonder/core/reference';
import { infeasibleText } from '@yonder/core/words';
import { useState } from 'react';
import { useReference } from '../../app/reference.tsx';
import { compute } from '../../workers/client.ts';
import type { Asked } from '../../workers/protocol.ts';
import { draftOf } from './draftOf.ts';
import type { RefitNote } from './Refit.tsx';
import { useEdit } from './useEdit.ts';

export const VARIANT_LABEL: Readonly<Record<Variant, string>> = {
  short: 'Short, 5 min',
  'rapid-ready': 'Rapid ready',
  'no-kit': 'No kit',
  'no-lying': 'Nothing lying',
};

/** What is asked for by a protocol: its time and shape, with what varies as it is for the athlete. */
function requestOf({ request, structure, variables }: TemplateRow, own: BuildRequest): BuildRequest {
  const { minutes, maxDrills, mode, kit, space } = request;
  const place = variables.place === 'as-written' ? { kit, space } : {};
  const time = variables.minutes === 'as-written' ? { minutes } : {};
  return { ...own, ...place, ...time, mode, maxDrills, structure, pins: [] };
}

/** Fits drills to the athlete by solving anew: for templates and for versions derived from a routine. */
export function useRefit({ subject, request: own }: Asked) {
  const reference = useReference();
  const edit = useEdit();
  const [note, setNote] = useState<RefitNote | null>(null);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const fit = (title: string, request: BuildRequest, all: readonly RoutineItem[]) => {
    const from = all.filter(({ drill }) => !isLine(drill));
    const words = all.filter(({ drill }) => drill === OWN_WORDS);
    setBusy(true);
    setProblem(null);
    const prefer = from.map((item) => item.drill);
    compute
      .call('refit', subject, { request, from: prefer })
      .then(({ report, changes }) => {
        const draft = draftOf(report, { ...request, prefer });
        if (draft) {
          // What is said in own words stays, below what was fitted.
          edit.build({
            ...draft,
            items: [...draft.items, ...words.map(({ id: _id, from: _from, ...item }) => item)],
          });
          setNote({ title, changes, held: [] });
          return;
        }
        const clashes = (report.infeasible ?? []).map((clash) => infeasibleText(reference, clash));
        setProblem(clashes.join(' ') || report.blocked[0]?.action || 'No drill fits.');
      })
      .catch(() => setProblem('It could not be worked out. Try again.'))
      .finally(() => setBusy(false));
  };
  return {
    note,
    busy,
    problem,
    close: () => setNote(null),
    /** Fitted: what varies follows the athlete, and each drill stands at the level that is open. */
    useTemplate: (template: TemplateRow) =>
      fit(`“${template.name}”, fitted`, requestOf(template, own), template.items),
    /** Word by word: as it is written, but for what safety keeps out. */
    useWords: (template: TemplateRow) => {
      const request = requestOf(template, own);
      setBusy(true);
      setProblem(null);
      compute
        .call('wordByWord', subject, { request, items: template.items })
        .then(({ items, held }) => {
          edit.build({ request, structure: template.structure, sections: template.sections, items });
          setNote({ title: `“${template.name}”, word by word`, changes: [], held });
        })
        .catch(() => setProblem('It could not be worked out. Try again.'))
        .finally(() => setBusy(false));
    },
    derive: (variant: Variant, request: BuildRequest, items: readonly RoutineItem[]) =>
      fit(
        `${VARIANT_LABEL[variant]}, solved anew`,
        variantRequest(
          request,
          variant,
          items.map((item) => item.drill),
        ),
        items,
      ),
  };
}
