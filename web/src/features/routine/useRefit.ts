import { variantRequest } from '@yonder/core/builder';
import type { Variant } from '@yonder/core/builder';
import type { TemplateRow } from '@yonder/core/contracts';
import type { BuildRequest, RoutineItem } from '@yonder/core/domain';
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

/** Fits drills to the athlete by solving anew: for templates and for versions derived from a routine. */
export function useRefit({ subject, request: own }: Asked) {
  const reference = useReference();
  const edit = useEdit();
  const [note, setNote] = useState<RefitNote | null>(null);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const fit = (title: string, request: BuildRequest, from: readonly Pick<RoutineItem, 'drill'>[]) => {
    setBusy(true);
    setProblem(null);
    const prefer = from.map((item) => item.drill);
    compute
      .call('refit', subject, { request, from: prefer })
      .then(({ report, changes }) => {
        const draft = draftOf(report, { ...request, prefer });
        if (draft) {
          edit.build(draft);
          setNote({ title, changes });
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
    useTemplate: (template: TemplateRow) => {
      const { minutes, maxDrills, mode } = template.request;
      // Time and shape are the template's; kit, positions and bans are what is true of this athlete today.
      const request = { ...own, mode, minutes, maxDrills, structure: template.structure, pins: [] };
      fit(`“${template.name}”, fitted`, request, template.items);
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
