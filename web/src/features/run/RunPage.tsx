import { Alert, Button, Group, SegmentedControl, Text, Title } from '@mantine/core';
import type { RoutineRow, SessionRow, SessionWithEvents } from '@yonder/core/contracts';
import type { ReferenceData } from '@yonder/core/reference';
import { duration, lineName, nameOf, ruleText } from '@yonder/core/words';
import { withSchools } from '@yonder/core/assess';
import { routineSafetyFaults } from '@yonder/core/safety';
import { useEffect, useEffectEvent, useMemo, useRef, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { Refusal } from '../../components/Refusal.tsx';
import { Allowed } from '../../app/Allowed.tsx';
import { AsIssued, useReference } from '../../app/reference.tsx';
import { dayText, shortDay, today } from '../../app/today.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { CheckIn } from './CheckIn.tsx';
import { useCheckInQuery } from '../athletes/saidEndpoints.ts';
import { TodaysSession, useTodaysCopy } from './TodaysSession.tsx';
import { ScoreBefore } from './Provoking.tsx';
import type { Scores } from './Provoking.tsx';
import { Occasions } from '../routine/Occasions.tsx';
import { OverrideNotes } from '../routine/OverrideNotes.tsx';
import { useRoutineQuery } from '../routine/routineEndpoints.ts';
import { useVersions } from '../routine/useVersions.ts';
import classes from './Run.module.css';
import { Runner } from './Runner.tsx';
import { useSessionsQuery, useStartSessionMutation } from './sessionEndpoints.ts';

type SessionCheck = ReferenceData['sessionChecks'][number];

const LIMIT_WORDS: Readonly<Record<string, string>> = { '<=': 'up to', '>=': 'at least', '==': 'only' };

/** "up to 2". */
function limitText({ limit }: SessionCheck): string {
  return `${LIMIT_WORDS[limit.op] ?? limit.op} ${String(limit.value)}`;
}

/** Questions to ask before the first drill, from the entry criteria of the routine's drills. */
function useChecks(routine: RoutineRow | undefined): readonly SessionCheck[] {
  const reference = useReference();
  const ids = new Set(
    (routine?.items ?? []).flatMap(
      (item) =>
        reference.drills.get(item.drill)?.entryCriteria.flatMap((c) => (c.check ? [c.check] : [])) ?? [],
    ),
  );
  return reference.data.sessionChecks.filter((check) => ids.has(check.id));
}

type Answers = Readonly<Record<string, boolean>>;

/** The questions, each with its answer; what does not hold says what follows. */
function AskFirst({
  checks,
  answers,
  onAnswer,
}: {
  checks: readonly SessionCheck[];
  answers: Answers;
  onAnswer: (check: string, holds: boolean) => void;
}) {
  if (checks.length === 0) return null;
  return (
    <Alert color="copper" title="Ask first">
      {checks.map((check) => (
        <div key={check.id} className={classes.check} role="group" aria-label={check.name}>
          <span>
            {check.ask} <span className="muted">It may start with {limitText(check)}.</span>
            {answers[check.id] === false ? <b> {check.ifFailed}</b> : null}
          </span>
          <SegmentedControl
            size="xs"
            aria-label={check.name}
            value={check.id in answers ? String(answers[check.id]) : ''}
            onChange={(value) => onAnswer(check.id, value === 'true')}
            data={[
              { value: 'true', label: 'holds' },
              { value: 'false', label: 'does not' },
            ]}
          />
        </div>
      ))}
    </Alert>
  );
}

function Diary({ sessions }: { sessions: readonly SessionRow[] }) {
  const reference = useReference();
  const finished = sessions.filter((s) => s.finished).slice(0, 8);
  if (finished.length === 0) return null;
  return (
    <section className={`card ${classes.diary}`}>
      <Title order={3} size={16}>
        Last sessions
      </Title>
      <ul>
        {finished.map((session) => {
          const worst = session.entries.reduce(
            (a, b) => (b.pain > a.pain ? b : a),
            session.entries[0] ?? { pain: 0, drill: '' },
          );
          const all = session.entries.filter((e) => e.done === 'all').length;
          return (
            <li key={session.id}>
              <b>{shortDay(session.date)}</b>: {all} of {session.entries.length} drills in full
              {worst.pain > 0
                ? `, most pain ${worst.pain}/10 (${nameOf(reference, worst.drill)})`
                : ', no pain'}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** The rules of the day for a routine, and the drills they keep out, with why: those are left out of today's run. */
function useNotToday(routine: RoutineRow | undefined) {
  const reference = useReference();
  const { assessment, case: input, on } = useWorkspace();
  return useMemo(() => {
    const { dayRules } = withSchools(assessment, routine?.schools ?? {}).safety;
    if (!routine) return { dayRules, notToday: new Map<string, string>() };
    const faults = routineSafetyFaults(reference, routine.items, input.athlete, on, dayRules);
    const notToday = new Map(
      faults.flatMap(({ index, rule, about }) => {
        const item = index === null ? undefined : routine.items[index];
        const out = item && (rule === 'day-rule' || rule === 'referred');
        return out ? [[item.id, ruleText(reference, rule, about)] as const] : [];
      }),
    );
    return { dayRules, notToday };
  }, [routine, assessment, input, on, reference]);
}

/** Goes on once with a run that was under way, when it is known. */
function useGoingOn(back: string | null, enter: () => void) {
  const done = useRef<string | null>(null);
  const goOn = useEffectEvent(enter);
  useEffect(() => {
    if (back === null || done.current === back) return;
    done.current = back;
    goOn();
  }, [back]);
}

interface StartProps {
  /** A run of the day is under way. */
  open: boolean;
  /** It is being started. */
  busy: boolean;
  /** Questions that wait for an answer. */
  unanswered: number;
  /** Something asked does not hold. */
  failed: boolean;
  /** Lines that are not for today, of how many. */
  out: number;
  /** Lines of the version. */
  lines: number;
  /** Start, or go on. */
  onStart: () => void;
}

/** What the routine itself warns of, read before the first drill. */
function Cautions({ routine }: { routine: RoutineRow }) {
  const said = routine.items.filter(({ caution }) => caution);
  if (said.length === 0) return null;
  return (
    <Alert color="copper" p={8} title="This routine says">
      {said.map(({ id, words }) => (
        <div key={id}>{words}</div>
      ))}
    </Alert>
  );
}

/** The button that starts the run, and what stands against it. */
function StartLine({ open, busy, unanswered, failed, out, lines, onStart }: StartProps) {
  const { on } = useWorkspace();
  return (
    <Group mt="md">
      <Allowed least="assistant">
        <Button
          size="lg"
          loading={busy}
          disabled={unanswered > 0 || failed || out === lines}
          onClick={onStart}
        >
          {open ? 'Go on' : 'Start'}
          {out > 0 ? ` without ${out} ${out === 1 ? 'drill' : 'drills'}` : ''}
        </Button>
      </Allowed>
      <Text size="sm" c="var(--muted)">
        Session of {dayText(on)}
        {on > today() ? ', ahead of today' : ''}
        {unanswered > 0 ? `; ${unanswered} to answer first` : ''}
        {failed ? '; it does not start with what does not hold' : ''}
        {out === lines ? '; nothing of it is for today' : ''}
      </Text>
    </Group>
  );
}

/** Run: what is to be done, what to ask first, and the way into the full-screen runner. */
export function RunPage() {
  const reference = useReference();
  const { athlete, routineId, on } = useWorkspace();
  const { search } = useLocation();
  const { data: routine } = useRoutineQuery(routineId ?? '', { skip: routineId === null });
  const versions = useVersions();
  const { data: sessions } = useSessionsQuery(athlete.id, { refetchOnMountOrArgChange: true });
  const [start, { isLoading, error }] = useStartSessionMutation();
  const [session, setSession] = useState<SessionWithEvents | null>(null);
  const [answers, setAnswers] = useState<Answers>({});
  const [scores, setScores] = useState<Scores>({});
  const [left, setLeft] = useState(false);
  const checks = useChecks(routine);
  const { dayRules, notToday } = useNotToday(routine);
  const { data: said } = useCheckInQuery({ athleteId: athlete.id, date: on });
  const [undone, setUndone] = useState<readonly string[]>([]);
  const copy = useTodaysCopy(routine, said, undone);
  const key = `running/${athlete.id}`;
  const open = sessions?.find((s) => !s.finished && s.routineId === routineId && s.date === on);
  // A reload in the middle of a run goes straight back into it, through the same door as a start.
  const back = !left && open && sessionStorage.getItem(key) === open.id ? open.id : null;
  const unanswered = checks.filter((check) => !(check.id in answers)).length;
  const failed = checks.some((check) => answers[check.id] === false);
  const enter = () => {
    if (!routineId) return;
    const adapt = said !== undefined && said.version !== null;
    const today = { adapt, undone: [...undone], ...(adapt && copy ? { shown: [...copy.changes] } : {}) };
    start({ routineId, date: on, leaveOut: [...notToday.keys()], ...today })
      .unwrap()
      .then(
        (row) => {
          sessionStorage.setItem(key, row.id);
          setSession(row);
        },
        () => undefined, // shown below
      );
  };
  useGoingOn(session === null && routine !== undefined ? back : null, enter);
  const leave = () => {
    sessionStorage.removeItem(key);
    setLeft(true);
    setSession(null);
  };
  if (!routineId || !routine) {
    return (
      <>
        <Occasions more={false} />
        <Text className={`card ${classes.empty}`}>
          No routine is issued as of {dayText(on)}.{' '}
          <Link to={{ pathname: '../routine', search }} relative="path">
            Build one first.
          </Link>
        </Text>
      </>
    );
  }
  if (session)
    return (
      <AsIssued drills={routine.ownDrills}>
        <Runner
          key={session.id}
          session={session}
          routine={routine}
          answers={answers}
          scores={scores}
          onLeave={leave}
        />
      </AsIssued>
    );
  return (
    <div className={classes.page}>
      <Occasions more={false} />
      <section className={`card ${classes.start}`}>
        <Title order={2} size={22}>
          Version {routine.number}, {duration(routine.totalSeconds)}
        </Title>
        <Cautions routine={routine} />
        <ol>
          {routine.items.map((item) =>
            item.caution ? null : (
              <li key={item.id} data-out={notToday.has(item.id) || undefined}>
                {lineName(reference, item)}
                {notToday.has(item.id) ? <span> not today: {notToday.get(item.id)}</span> : null}
              </li>
            ),
          )}
        </ol>
        <OverrideNotes overrides={routine.overrides} />
        <CheckIn key={on} />
        {copy && copy.changes.length + undone.length > 0 ? (
          <TodaysSession
            routine={routine}
            copy={copy}
            undone={undone}
            onUndo={(id) => setUndone((now) => [...now, id])}
            onRestore={() => setUndone([])}
          />
        ) : null}
        <ScoreBefore rules={dayRules} scores={scores} onScores={setScores} />
        <AskFirst
          checks={checks}
          answers={answers}
          onAnswer={(check, holds) => setAnswers((all) => ({ ...all, [check]: holds }))}
        />
        <StartLine
          open={open !== undefined}
          busy={isLoading}
          unanswered={unanswered}
          failed={failed}
          out={notToday.size}
          lines={routine.items.length}
          onStart={enter}
        />
        <Refusal error={error} mt={8} />
      </section>
      <Diary sessions={(sessions ?? []).filter((s) => versions?.some(({ id }) => id === s.routineId))} />
    </div>
  );
}
