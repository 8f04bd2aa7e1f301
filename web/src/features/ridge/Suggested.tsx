import { nameOf, SIDE_LABEL } from '@yonder/core/words';
import { useReference } from '../../app/reference.tsx';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import classes from './Ridge.module.css';

/** What pains and marked faults suggest to look at: without severity, they move no ranking. */
export function Suggested() {
  const reference = useReference();
  const { report } = useWorkspace();
  const { hints, patterns } = report;
  if (hints.length + patterns.length === 0) return null;
  const side = (s: keyof typeof SIDE_LABEL) => (s === 'central' ? '' : `, ${SIDE_LABEL[s]}`);
  const faultName = (test: string, fault: string | null) =>
    reference.tests
      .get(test)
      ?.faults?.find((f) => f.id === fault)
      ?.name.toLowerCase();
  return (
    <>
      <b>To look at</b> <span className="muted">suggested, not measured</span>
      <ul className={classes.suggested}>
        {patterns.map((hit) => (
          <li key={`${hit.pattern}/${hit.side}/${hit.test ?? ''}`}>
            {hit.restriction ? (
              <b>
                {nameOf(reference, hit.restriction)}
                {side(hit.side)}:{' '}
              </b>
            ) : null}
            {hit.says}{' '}
            <span className="muted">
              {hit.test ? `On ${nameOf(reference, hit.test).toLowerCase()}` : 'Told'}, {hit.nrs}/10.
            </span>
          </li>
        ))}
        {hints.map((hint) => (
          <li key={`${hint.restriction}/${hint.side}/${hint.test}/${hint.fault ?? ''}`}>
            <b>
              {nameOf(reference, hint.restriction)}
              {side(hint.side)}:{' '}
            </b>
            {hint.because === 'fault'
              ? `${faultName(hint.test, hint.fault) ?? hint.fault} seen on ${nameOf(reference, hint.test).toLowerCase()}.`
              : `${nameOf(reference, hint.test).toLowerCase()} is below its need; it does not tell the side.`}
          </li>
        ))}
      </ul>
    </>
  );
}
