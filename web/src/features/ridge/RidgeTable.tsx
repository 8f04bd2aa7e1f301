import type { FindingsReport } from '@yonder/core/findings';
import {
  figure,
  nameOf,
  needText,
  percent,
  SIDE_LABEL,
  signedFigure,
  sourceText,
  STATE_LABEL,
} from '@yonder/core/words';
import { useReference } from '../../app/reference.tsx';
import { dayText } from '../../app/today.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import classes from './Ridge.module.css';

type Row = FindingsReport['capacities'][number];

/** Every side with its need, and below it what else it is held against: the other side, the last visit. */
function rowsOf({ capacities, findings }: FindingsReport): Row[] {
  return capacities.flatMap((capacity) => {
    const beside = new Map(
      findings
        .flatMap((finding) => finding.evidence)
        .filter(
          ({ test, side, needSource: { kind } }) =>
            test === capacity.test && side === capacity.side && (kind === 'symmetry' || kind === 'trend'),
        )
        .map((row) => [row.needSource.kind, row]),
    );
    return [capacity, ...[...beside.values()].map((row) => ({ ...capacity, ...row, adultNeed: null }))];
  });
}

/** The ridge as a table: the same content for screen readers and for copying. */
export function RidgeTable({ report }: { report: FindingsReport }) {
  const reference = useReference();
  const { age } = useWorkspace().assessment.safety;
  return (
    <div className={classes.tableScroll}>
      <table className={classes.ranked}>
        <thead>
          <tr>
            {[
              'Test',
              'Side',
              'Estimate',
              'Latest reading',
              'SD',
              'Need',
              'Source',
              'Reserve',
              'Margin',
              'Short with',
              'State',
              'Date',
            ].map((h) => (
              <th key={h} scope="col">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rowsOf(report).map((c) => (
            <tr key={`${c.test}/${c.side}/${c.needSource?.kind}`}>
              <th scope="row">{nameOf(reference, c.test)}</th>
              <td>{SIDE_LABEL[c.side]}</td>
              <td className="numeric">{figure(c.estimate, c.unit)}</td>
              <td className="numeric">{figure(c.value, c.unit)}</td>
              <td className="numeric">{c.sd === null ? '' : figure(c.sd, c.unit)}</td>
              <td className="numeric">{needText(reference, c, age)}</td>
              <td>{c.needSource ? sourceText(reference, c.needSource) : ''}</td>
              <td className="numeric">{c.reserve === null ? '' : signedFigure(c.reserve, c.unit)}</td>
              <td className="numeric">{c.margin === null ? '' : c.margin.toFixed(2)}</td>
              <td className="numeric">{c.pShort === null ? '' : percent(c.pShort)}</td>
              <td>{c.state ? STATE_LABEL[c.state] : ''}</td>
              <td>{dayText(c.date)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
