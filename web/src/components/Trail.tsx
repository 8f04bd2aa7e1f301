import { decideProgress, waitingItems } from '@yonder/core/progress';
import { useMemo } from 'react';
import { isShort } from '@yonder/core/findings';
import { NavLink, useLocation, useParams } from 'react-router';
import { useWorkspace } from '../features/athletes/WorkspaceContext.tsx';
import { useGate } from '../features/gate/useGate.ts';
import { shortDay } from '../app/today.ts';
import classes from './Trail.module.css';

interface Step {
  readonly path: string;
  readonly name: string;
  readonly note: string;
  readonly done: boolean;
}

function useSteps(): Step[] {
  const { assessment, case: input, report } = useWorkspace();
  const { due, last: asked } = useGate();
  const waiting = useMemo(() => {
    const { decisions } = decideProgress(assessment);
    return waitingItems(assessment.standing, decisions).length;
  }, [assessment]);
  const last = input.screenings.findLast((s) => s.results.length > 0);
  const short = report.findings.filter(isShort).length;
  const runs = input.diary.filter((s) => !input.routine || s.date >= input.routine.issued).length;
  return [
    {
      path: 'story',
      name: 'Story',
      note: due.length === 0 ? 'gate answered' : asked ? `gate: ${due.length} due` : 'gate open',
      done: due.length === 0,
    },
    {
      path: 'screen',
      name: 'Screen',
      note: last ? shortDay(last.date) : 'not yet',
      done: last !== undefined,
    },
    { path: 'ridge', name: 'Ridge', note: last ? `${short} short` : 'fog', done: last !== undefined },
    {
      path: 'routine',
      name: 'Routine',
      note: input.routine ? `issued ${shortDay(input.routine.issued)}` : 'none yet',
      done: input.routine !== null,
    },
    { path: 'run', name: 'Run', note: `${runs} ${runs === 1 ? 'session' : 'sessions'}`, done: runs > 0 },
    {
      path: 'progress',
      name: 'Progress',
      note: !input.routine ? '' : waiting > 0 ? `${waiting} to decide` : 'nothing to decide',
      done: input.routine !== null && waiting === 0 && runs > 0,
    },
  ];
}

function Peak({ done }: { done: boolean }) {
  return (
    <svg
      viewBox="0 0 24 18"
      width="24"
      height="18"
      aria-hidden="true"
      className={classes.peak}
      data-done={done || undefined}
    >
      <path d="M1 17 8.5 5l3.4 4.6L15 6l8 11z" />
    </svg>
  );
}

/** The order of work as a walk over small peaks; a peak is filled once there is something behind it. */
export function Trail() {
  const { athleteId } = useParams();
  const { search } = useLocation();
  return (
    <nav aria-label="Trail" className={classes.trail}>
      <ol>
        {useSteps().map((step) => (
          <li key={step.path}>
            <NavLink
              to={{ pathname: `/athletes/${athleteId}/${step.path}`, search }}
              className={classes.step}
            >
              <Peak done={step.done} />
              <span className={classes.words}>
                <span className={classes.name}>{step.name}</span>
                <span className={classes.note}>{step.note}</span>
              </span>
            </NavLink>
          </li>
        ))}
      </ol>
    </nav>
  );
}
