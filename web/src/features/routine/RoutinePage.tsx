import { Alert, SegmentedControl, Text } from '@mantine/core';
import { useHotkeys } from '@mantine/hooks';
import { chooseStructure } from '@yonder/core/builder';
import type { BuildReport } from '@yonder/core/builder';
import type { Draft } from '@yonder/core/contracts';
import { sameJson, usualRequest } from '@yonder/core/domain';
import type { BuildRequest, Case, RoutineItem } from '@yonder/core/domain';
import { duration, infeasibleText, nameOf, number, reasonText, withSide } from '@yonder/core/words';
import { useCallback, useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { Allowed } from '../../app/Allowed.tsx';
import { useReference } from '../../app/reference.tsx';
import { useAppDispatch } from '../../app/store.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { Answers } from './Answers.tsx';
import { CheckIt, CompleteIt } from './Engine.tsx';
import { TakeOver } from './TakeOver.tsx';
import { BuilderBar } from './BuilderBar.tsx';
import { Derive } from './Derive.tsx';
import { draftOf } from './draftOf.ts';
import { redone, requestChanged, undone } from './draftSlice.ts';
import { Footer } from './Footer.tsx';
import { Issued, ToAnswer } from './Issued.tsx';
import { copyOf, withTaken } from './starting.ts';
import { Occasions } from './Occasions.tsx';
import { ItemWhy } from './ItemWhy.tsx';
import { DraftConflictNote } from './DraftConflictNote.tsx';
import { NotAsked } from './NotAsked.tsx';
import { Refit } from './Refit.tsx';
import classes from './Routine.module.css';
import { useVersions } from './useVersions.ts';
import { SaveTemplate } from './Templates.tsx';
import { useBuilder } from './useBuilder.ts';
import { useDraft } from './useDraft.ts';
import { useEdit } from './useEdit.ts';
import { explanationOf, useExplained } from './useExplained.ts';
import type { ExplainedItems } from './useExplained.ts';
import { Sheet } from './Sheet.tsx';
import { useRefit } from './useRefit.ts';
import { WayUp } from './WayUp.tsx';
import { WeekNote } from './WeekNote.tsx';
import { WhatIf } from './WhatIf.tsx';
import { WhyNot } from './WhyNot.tsx';
import type { Asked } from '../../workers/protocol.ts';

/** Warnings that the rows and the checks below them say better, with a control or a repair. */
const SAID_ELSEWHERE = new Set(['phase-share', 'handle-with-care', 'confirm-level']);

/** Lines beside the checks: clashing pins, what is not served and what would be needed, warnings of the build. */
function useNotes(report: BuildReport | null, draft: Draft | null): string[] {
  const reference = useReference();
  // Beside a routine the answers say this, drill by drill.
  const unserved = draft ? [] : (report?.unserved ?? []);
  const lines = [
    ...(report?.infeasible ?? []).map((clash) => infeasibleText(reference, clash)),
    ...unserved.map(({ restriction, side, because }) => {
      const name = withSide(nameOf(reference, restriction).toLowerCase(), side);
      return `Not served: ${name}. ${reasonText(reference, because)}`;
    }),
    ...(report?.unused && !draft
      ? [
          `${duration(report.unused.seconds)} of the time stay: ${report.unused.because.map((one) => reasonText(reference, one)).join(' ')}`,
        ]
      : []),
    ...(report?.warnings ?? [])
      .filter((warning) => !SAID_ELSEWHERE.has(warning.rule))
      .map((warning) => reasonText(reference, warning)),
  ];
  return [...new Set(lines)];
}

/** The tests that would sharpen a general routine most, each a link to do it now. */
function Sharpen({ report }: { report: BuildReport | null }) {
  const reference = useReference();
  if (!report || report.sharpen.length === 0) return null;
  return (
    <Text size="sm" className={classes.sharpen}>
      General: nothing is screened yet. It would be sharpest with{' '}
      {report.sharpen.map(({ test, minutes }, i) => (
        <span key={test}>
          {i > 0 ? ', ' : ''}
          <Link to="../screen" relative="path">
            {nameOf(reference, test).toLowerCase()}
          </Link>{' '}
          ({number(minutes, 0)} min)
        </span>
      ))}
      .
    </Text>
  );
}

function useRequest(
  draft: Draft | null,
  input: Case,
): [BuildRequest, (change: Partial<BuildRequest>) => void] {
  const dispatch = useAppDispatch();
  const { athlete, occasion } = useWorkspace();
  const [own, setOwn] = useState<BuildRequest>(() => usualRequest(input.request, occasion, athlete));
  const change = (part: Partial<BuildRequest>) => {
    setOwn((current) => ({ ...current, ...part }));
    if (draft) dispatch(requestChanged(part));
  };
  return [draft?.request ?? own, change];
}

/** How well the routine as it stands is proven; nothing once it differs from what was built. */
function proofOf(report: BuildReport | null, draft: Draft): string {
  const gap = report?.routine?.gap;
  const built = report ? draftOf(report, draft.request) : null;
  const bare = (items: readonly RoutineItem[] = []) => items.map(({ id: _id, from: _from, ...item }) => item);
  if (gap === undefined || !sameJson(bare(built?.items), bare(draft.items))) return '';
  return gap < 0.0005
    ? 'Proven: the best of what these rules allow.'
    : `Proven: within ${number(gap * 100, 1)} % of the best these rules allow.`;
}

interface SideProps {
  /** The routine being edited. */
  draft: Draft;
  /** The record and what was asked for. */
  asked: Asked;
  /** Why each is in; null while that is worked out. */
  explained: ExplainedItems | null;
  /** The last build; null when it was not built here. */
  report: BuildReport | null;
  /** The line explained, by id. */
  selected: string | null;
  /** A line was pressed. */
  onSelect: (id: string) => void;
}

const PANELS = [
  { value: 'why', label: 'Why' },
  { value: 'why-not', label: 'Why not' },
  { value: 'what-if', label: 'What if' },
];

/** Beside the list: why the selected drill is in, why another is not, what would change the answer. */
function Side({ draft, asked, explained, report, selected, onSelect }: SideProps) {
  const [search, setSearch] = useSearchParams();
  const panel = search.get('panel') ?? 'why';
  const item = draft.items.find(({ id }) => id === selected);
  return (
    <aside className={`card ${classes.side}`} aria-label="Why">
      <Answers draft={draft} explained={explained} report={report} onSelect={onSelect} />
      <SegmentedControl
        size="xs"
        fullWidth
        aria-label="Ask"
        data={PANELS}
        value={panel}
        onChange={(value) => {
          search.set('panel', value);
          setSearch(search, { replace: true });
        }}
      />
      {panel === 'why' && item ? (
        <ItemWhy draft={draft} asked={asked} item={item} explanation={explanationOf(explained, item.id)} />
      ) : null}
      {panel === 'why-not' ? <WhyNot asked={asked} /> : null}
      {panel === 'what-if' ? <WhatIf asked={asked} /> : null}
    </aside>
  );
}

interface EditingProps {
  /** The routine being edited. */
  draft: Draft;
  /** The record and what was asked for. */
  asked: Asked;
  /** A written list is taken over. */
  onTakeOver: () => void;
  /** Where it is kept. */
  kept: Pick<ReturnType<typeof useDraft>, 'problem' | 'settled' | 'discard'>;
  /** Why each is in and what is wrong; null while that is worked out. */
  explained: ExplainedItems | null;
  /** Lines beside the checks. */
  notes: string[];
  /** The line explained, by id. */
  selected: string | null;
  /** A line was pressed. */
  onSelect: (id: string | null) => void;
  /** What was done last. */
  note: string;
  /** Something was done that is worth saying. */
  onNote: (note: string) => void;
  /** Minutes there are. */
  minutes: number;
  /** Number of the version it would become. */
  nextNumber: number;
  /** How well it is proven. */
  proof: string;
  /** Fits derived versions. */
  refit: ReturnType<typeof useRefit>;
}

/** The routine being edited: its list with the checks, and issuing it. */
function Editing({
  draft,
  asked,
  onTakeOver,
  kept,
  explained,
  notes,
  selected,
  onSelect,
  note,
  onNote,
  ...rest
}: EditingProps) {
  const [keeping, setKeeping] = useState(false);
  const { minutes, nextNumber, proof, refit } = rest;
  return (
    <>
      <NotAsked items={draft.items} />
      {keeping ? <SaveTemplate draft={draft} onClose={() => setKeeping(false)} /> : null}
      <Sheet
        draft={draft}
        asked={asked}
        explained={explained}
        notes={notes}
        selected={selected}
        onSelect={onSelect}
        onNote={onNote}
        onTakeOver={onTakeOver}
      />
      <Footer
        draft={draft}
        minutes={minutes}
        nextNumber={nextNumber}
        explained={explained}
        note={note}
        onNote={onNote}
        problem={kept.problem}
        settled={kept.settled}
        proof={proof}
        tools={
          <>
            <CheckIt draft={draft} asked={asked} onNote={onNote} />
            <CompleteIt draft={draft} asked={asked} minutes={minutes} onNote={onNote} />
            <Derive
              busy={refit.busy}
              onDerive={(variant) => refit.derive(variant, draft.request, draft.items)}
              onKeep={() => setKeeping(true)}
              onDiscard={() => {
                onNote('');
                void kept.discard();
              }}
            />
          </>
        }
      />
    </>
  );
}

/** Undo and redo by keyboard; also while a figure of the dose has the focus: that is where most edits are made. */
function useUndoKeys(): void {
  const dispatch = useAppDispatch();
  useHotkeys(
    [
      ['mod+Z', () => dispatch(undone())],
      ['mod+shift+Z', () => dispatch(redone())],
    ],
    ['TEXTAREA'],
  );
}

/** Routine, for one occasion after the other. */
export function RoutinePage() {
  const { occasion } = useWorkspace();
  return (
    <>
      <Occasions more />
      <WeekNote />
      <OneRoutine key={occasion} />
    </>
  );
}

/** While a stop-and-refer sign is open nothing is built or composed. */
function Stopped({ action }: { action: string }) {
  return (
    <Alert color="red" title="No routine while a stop-and-refer sign is open">
      {action}
    </Alert>
  );
}

interface TopProps {
  /** The record and what is asked for. */
  asked: Asked;
  /** The routine being edited; null when none is. */
  draft: Draft | null;
  /** Minutes there are. */
  minutes: number;
  /** The line that is chosen, by id. */
  selected: string | null;
  /** Builds in the background. */
  builder: ReturnType<typeof useBuilder>;
  /** Something else is asked for. */
  onChange: (part: Partial<BuildRequest>) => void;
  /** A line was pressed. */
  onSelect: (id: string | null) => void;
}

/** Over the list: what is asked for, and the session as a way up. */
function Top({ asked, draft, minutes, selected, builder, onChange, onSelect }: TopProps) {
  return (
    <div className={classes.top}>
      <Allowed least="clinician">
        <BuilderBar
          asked={asked}
          onChange={onChange}
          state={builder.state}
          onBuild={() => builder.build(asked)}
          onCancel={builder.cancel}
          again={draft !== null}
        />
      </Allowed>
      {draft ? (
        <WayUp
          draft={draft}
          minutes={minutes}
          selected={draft.items.findIndex(({ id }) => id === selected)}
          onSelect={onSelect}
        />
      ) : null}
    </div>
  );
}

/** The routine of an occasion: built, explained, checked, edited and issued; the versions until then. */
function OneRoutine() {
  const reference = useReference();
  const { athlete, occasion, case: input, report: findings, assessment, subject } = useWorkspace();
  const edit = useEdit();
  const kept = useDraft(athlete.id, occasion);
  const { draft, ready, conflict, choose } = kept;
  const routines = useVersions();
  const [request, changeRequest] = useRequest(draft, input);
  const [picked, setPicked] = useState<string | null>(null);
  const [note, setNote] = useState('');
  const [taking, setTaking] = useState(false);
  const asked = useMemo(() => ({ subject, request }), [subject, request]);
  const explained = useExplained(asked, draft);
  const refit = useRefit(asked);
  const onBuilt = useCallback(
    (report: BuildReport) => {
      setNote('');
      const made = draftOf(report, request);
      if (made) edit.build(made);
    },
    [edit, request],
  );
  const builder = useBuilder(athlete.id, onBuilt);
  useUndoKeys();
  const report = builder.state.kind === 'done' ? builder.state.report : null;
  const notes = useNotes(report, draft);
  const selected = draft?.items.find(({ id }) => id === picked)?.id ?? draft?.items[0]?.id ?? null;
  const blocked = findings.blocked.find((b) => b.region === 'all' && b.level !== 'P');
  if (blocked) return <Stopped action={blocked.action} />;
  const minutes =
    request.minutes ?? reference.structures.get(draft?.structure ?? '')?.minutes.default ?? athlete.minutes;
  const structureOf = () => chooseStructure(reference, assessment.standing.schools, request).structure.id;
  const change = (part: Partial<BuildRequest>) => {
    builder.overtaken();
    changeRequest(part);
  };
  if (taking)
    return (
      <TakeOver
        asked={asked}
        draft={draft}
        onClose={() => setTaking(false)}
        onTake={(taken, below) => {
          setTaking(false);
          edit.build(withTaken(reference, draft, { request, structure: structureOf(), ...taken }, below));
          setNote(`${taken.items.length} lines are taken over.`);
        }}
      />
    );
  return (
    <div className={classes.page}>
      <Top
        asked={asked}
        draft={draft}
        minutes={minutes}
        selected={selected}
        builder={builder}
        onChange={change}
        onSelect={setPicked}
      />
      <div className={classes.main}>
        <Sharpen report={report} />
        {refit.problem ? (
          <Alert color="copper" role="alert" p={8}>
            {refit.problem}
          </Alert>
        ) : null}
        {refit.note && draft ? <Refit note={refit.note} onClose={refit.close} /> : null}
        {conflict ? <DraftConflictNote conflict={conflict} onChoose={choose} /> : null}
        {draft ? (
          <Editing
            draft={draft}
            asked={asked}
            onTakeOver={() => setTaking(true)}
            kept={kept}
            explained={explained}
            notes={notes}
            selected={selected}
            onSelect={setPicked}
            note={note}
            onNote={setNote}
            minutes={minutes}
            nextNumber={(routines?.[0]?.number ?? 0) + 1}
            proof={proofOf(report, draft)}
            refit={refit}
          />
        ) : (
          <Issued
            notes={notes}
            routines={ready ? routines : undefined}
            refit={refit}
            request={request}
            onCopy={(routine) => {
              setNote('');
              edit.build(copyOf(routine, input, occasion));
            }}
            onCompose={() => edit.build({ request, structure: structureOf(), items: [] })}
            onTakeOver={() => setTaking(true)}
          />
        )}
      </div>
      {draft ? (
        <Side
          draft={draft}
          asked={asked}
          explained={explained}
          report={report}
          selected={selected}
          onSelect={setPicked}
        />
      ) : (
        <ToAnswer onBuild={() => builder.build(asked)} />
      )}
    </div>
  );
}
