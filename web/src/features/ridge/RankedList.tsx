import type { Finding } from '@yonder/core/findings';
import { figure, nameOf, number, signedFigure, SIDE_LABEL, STATE_LABEL } from '@yonder/core/words';
import { useReference } from '../../app/reference.tsx';
import { SideMark } from '../../components/SideMark.tsx';
import classes from './Ridge.module.css';

interface Props {
  /** In their ranking. */
  findings: readonly Finding[];
  /** The finding explained beside the list. */
  selected: Finding | null;
  /** A finding was pressed. */
  onSelect: (finding: Finding) => void;
}

const VERDICT = { confirmed: 'confirmed', dismissed: 'set aside', seen: 'seen by eye' } as const;

/** Restrictions by priority: side, value against need, reserve, severity and state. */
export function RankedList({ findings, selected, onSelect }: Props) {
  const reference = useReference();
  if (findings.length === 0) {
    return (
      <p className={classes.none}>No restriction here: nothing screened, or nothing short of its need.</p>
    );
  }
  return (
    <table className={classes.ranked} aria-label="Ranked restrictions">
      <thead>
        <tr>
          <th scope="col">Restriction</th>
          <th scope="col" className="numeric">
            Has
          </th>
          <th scope="col" className="numeric">
            Needs
          </th>
          <th scope="col" className="numeric">
            Reserve
          </th>
          <th scope="col">Severity</th>
          <th scope="col">State</th>
          <th scope="col" className="numeric">
            Priority
          </th>
        </tr>
      </thead>
      <tbody>
        {findings.map((finding) => {
          const row = finding.evidence[0];
          const unit = reference.tests.get(row?.test ?? '')?.unit ?? '';
          const name = nameOf(reference, finding.restriction);
          return (
            <tr
              key={`${finding.restriction}/${finding.side}`}
              aria-selected={finding === selected}
              data-side={finding.side}
              data-aside={finding.judgement?.verdict === 'dismissed' || undefined}
              onClick={() => onSelect(finding)}
            >
              <th scope="row">
                <button type="button" onClick={() => onSelect(finding)}>
                  <SideMark side={finding.side} state={finding.state} />
                  {name}
                  {finding.judgement ? (
                    <span className={classes.said}>{VERDICT[finding.judgement.verdict]}</span>
                  ) : null}
                  <span className="visually-hidden">, {SIDE_LABEL[finding.side]}</span>
                </button>
              </th>
              <td className="numeric">{row ? figure(row.estimate, unit) : ''}</td>
              <td className="numeric">{row ? figure(row.need, unit) : ''}</td>
              <td className="numeric">
                <b>{row ? signedFigure(row.reserve, unit) : ''}</b>
              </td>
              <td>
                <span className={classes.bar} data-side={finding.side}>
                  <span style={{ width: `${Math.round(finding.severity * 100)}%` }} />
                </span>
                <span className="visually-hidden">{number(finding.severity, 2)}</span>
              </td>
              <td>{STATE_LABEL[finding.state]}</td>
              <td className="numeric">{number(finding.priority, 2)}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
