import { Text } from '@mantine/core';
import { routineSeconds, weeklyLoads } from '@yonder/core/dose';
import { coversRestriction, reachesSide } from '@yonder/core/reference';
import type { RoutineItem } from '@yonder/core/domain';
import { routineChanges } from '@yonder/core/routine';
import { duration, nameOf, number, reasonText, REGION_LABEL, withSide } from '@yonder/core/words';
import { useReference } from '../../app/reference.tsx';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import classes from './Progress.module.css';

/** Findings that a list of items serves, as far as they are short today. */
function useServed() {
  const reference = useReference();
  const { report } = useWorkspace();
  return (items: readonly RoutineItem[]) =>
    report.findings.filter(
      (finding) =>
        finding.priority > 0 &&
        items.some((item) => {
          const drill = reference.drills.get(item.drill);
          return (
            drill &&
            reachesSide(drill, item.side, finding.side) &&
            coversRestriction(drill, finding.restriction)
          );
        }),
    );
}

interface Props {
  /** The version in force. */
  before: readonly RoutineItem[];
  /** What the verdicts so far would make of it. */
  after: readonly RoutineItem[];
  /** Drills that nobody decided on yet: shown as they are. */
  open: number;
}

/** The next version before it is issued: what changes, its seconds, the load of a week, what it answers. */
export function NextVersion({ before, after, open }: Props) {
  const reference = useReference();
  const served = useServed();
  const changes = routineChanges(reference, before, after);
  const seconds = [routineSeconds(reference, before), routineSeconds(reference, after)] as const;
  const was = weeklyLoads(reference, before);
  const is = weeklyLoads(reference, after);
  const loads = [...new Set([...was.keys(), ...is.keys()])]
    .map((region) => ({ region, from: was.get(region) ?? 0, to: is.get(region) ?? 0 }))
    .filter(({ from, to }) => Math.abs(to - from) >= 0.1);
  const lost = served(before).filter(
    (f) => !served(after).some((o) => o.restriction === f.restriction && o.side === f.side),
  );
  return (
    <section className={`card ${classes.preview}`} aria-labelledby="next-version">
      <h3 id="next-version">The next version, before it is issued</h3>
      {changes.length === 0 ? (
        <Text size="sm">Nothing changes; the version in force goes on.</Text>
      ) : (
        <ul>
          {changes.map((change, i) => (
            <li key={i}>{reasonText(reference, change)}</li>
          ))}
        </ul>
      )}
      <dl>
        <div>
          <dt>Time</dt>
          <dd>
            {duration(seconds[0])} → {duration(seconds[1])}
          </dd>
        </div>
        {loads.map(({ region, from, to }) => (
          <div key={region}>
            <dt>{REGION_LABEL[region]}, a week</dt>
            <dd>
              {number(from, 1)} → {number(to, 1)} load-minutes
            </dd>
          </div>
        ))}
        <div>
          <dt>Answers</dt>
          <dd>
            {served(after).length} of today’s findings
            {lost.length > 0
              ? `; no longer ${lost.map((f) => withSide(nameOf(reference, f.restriction).toLowerCase(), f.side)).join('; ')}`
              : ''}
          </dd>
        </div>
      </dl>
      {open > 0 ? (
        <Text size="sm" c="var(--muted)">
          {open} {open === 1 ? 'drill has' : 'drills have'} no answer yet and {open === 1 ? 'is' : 'are'}{' '}
          shown as now.
        </Text>
      ) : null}
    </section>
  );
}
