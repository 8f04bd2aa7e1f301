import type { FindingsReport } from '@yonder/core/findings';
import { figure, nameOf, percent, SIDE_LABEL, signedFigure, STATE_LABEL } from '@yonder/core/words';
import { useReference } from '../../app/reference.tsx';
import { dayText } from '../../app/today.ts';
import classes from './Ridge.module.css';

/** The ridge as a table: the same content for screen readers and for copying. */
export function RidgeTable({ report }: { report: FindingsReport }) {
  const reference = useReference();
  return (
    <div className={classes.tableScroll}>
      <table className={classes.ranked}>
        <thead>
          <tr>
            {[
              'Test',
              'Side',
              'Estimate',
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
          {report.capacities.map((c) => (
            <tr key={`${c.test}/${c.side}`}>
              <th scope="row">{nameOf(reference, c.test)}</th>
              <td>{SIDE_LABEL[c.side]}</td>
              <td className="numeric">{figure(c.estimate, c.unit)}</td>
              <td className="numeric">{c.sd === null ? '' : figure(c.sd, c.unit)}</td>
              <td className="numeric">
                {c.need === null
                  ? c.unusedNeed === null
                    ? 'none'
                    : 'needs body mass'
                  : figure(c.need, c.unit)}
              </td>
              <td>
                {c.needSource
                  ? c.needSource.kind === 'task'
                    ? nameOf(reference, c.needSource.id)
                    : c.needSource.kind
                  : ''}
              </td>
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
