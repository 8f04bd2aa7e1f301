import { variantRequest } from '@yonder/core/builder';
import type { Variant } from '@yonder/core/builder';
import type { TemplateRow } from '@yonder/core/contracts';
import type { BuildRequest, RoutineItem } from '@yonder/core/domain';
import { protocolRequest, withWords } from '@yonder/core/protocols';
import { isLine } from '@yonder/core/reference';
import { infeasibleText } from '@yonder/core/words';
import { useState } from 'react';
import { useReference } from '../../app/reference.tsx';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
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
  const { occasion } = useWorkspace();
  const edit = useEdit();
  const [note, setNote] = useState<RefitNote | null>(null);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const fit = (title: string, request: BuildRequest, written: readonly RoutineItem[]) => {
    setBusy(true);
    setProblem(null);
    const prefer = written.map(({ drill }) => drill).filter((drill) => !isLine(drill));
    compute
      .call('refit', subject, { request, from: prefer })
      .then(({ report, changes }) => {
        const draft = draftOf(report, { ...request, prefer });
        if (draft) {
          edit.build({ ...draft, items: withWords(draft.items, written) });
          setNote({ title, changes, held: [] });
          return;
        }
        const clashes = (report.infeasible ?? []).map((clash) => infeasibleText(reference, clash));
        setProblem(clashes.join(' ') || report.blocked[0]?.action || 'No drill fits.');
      })
      .catch(() => setProblem('It could not be worked out. Try again.'))
      .finally(() => setBusy(false));
  };
  const take = (
    template: TemplateRow,
    how: string,
    work: (ask: {
      request: BuildRequest;
      items: readonly RoutineItem[];
    }) => Promise<Omit<RefitNote, 'title'> & { items: readonly RoutineItem[] }>,
  ) => {
    const { structure, sections } = template;
    const request = protocolRequest(template, own, occasion);
    setBusy(true);
    setProblem(null);
    work({ request, items: template.items })
      .then(({ items, changes, held }) => {
        edit.build({ request, structure, sections, items: [...items] });
        setNote({ title: `“${template.name}”, ${how}`, changes, held });
      })
      .catch(() => setProblem('It could not be worked out. Try again.'))
      .finally(() => setBusy(false));
  };
  return {
    note,
    busy,
    problem,
    close: () => setNote(null),
    /** Fitted: the author's drills in the author's order, but for what safety, kit, level or side demand. */
    useTemplate: (template: TemplateRow) =>
      take(template, 'fitted', (ask) =>
        compute.call('fit', subject, ask).then(({ items, changes }) => ({ items, changes, held: [] })),
      ),
    /** Word by word: as it is written, but for what safety keeps out. */
    useWords: (template: TemplateRow) =>
      take(template, 'word by word', (ask) =>
        compute.call('wordByWord', subject, ask).then(({ items, held }) => ({ items, changes: [], held })),
      ),
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
