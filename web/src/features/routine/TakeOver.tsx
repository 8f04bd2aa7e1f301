import { Alert, Button, FileButton, Group, Loader, Text, Textarea, Title } from '@mantine/core';
import type { Draft } from '@yonder/core/contracts';
import type { RoutineItem, Section } from '@yonder/core/domain';
import { MOST_ITEMS } from '@yonder/core/schemas';
import { routineSeconds, routineTime } from '@yonder/core/dose';
import { chosenItem, firstChoice, routineOfLines, withRow } from '@yonder/core/takeover';
import type { Choice, TakenKind, TakenLine } from '@yonder/core/takeover';
import {
  circuitText,
  duration,
  lineAmount,
  lineName,
  nameOf,
  OCCASION_LABEL,
  ruleText,
  SIDE_MARK,
} from '@yonder/core/words';
import { useEffect, useState } from 'react';
import { useKeptState } from '../../app/kept/useKept.ts';
import { useReference } from '../../app/reference.tsx';
import { compute } from '../../workers/client.ts';
import type { Asked } from '../../workers/protocol.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import classes from './TakeOver.module.css';

/** Longest paper that is read, in characters: some hundreds of lines. */
const MOST_TEXT = 20_000;

const KIND: Readonly<Record<TakenKind, readonly [mark: string, word: string]>> = {
  sure: ['●', 'sure'],
  likely: ['◐', 'likely'],
  choose: ['○', 'choose'],
  held: ['■', 'held'],
  text: ['✎', 'as text'],
  joined: ['└', 'joined'],
  rest: ['≈', 'rest'],
  section: ['▬', 'section'],
  circuit: ['↻', 'rounds'],
  caution: ['▲', 'caution'],
  days: ['▦', 'days'],
};

/** A line of paper with what was read as the drill and what as its dose marked. */
function Paper({ line }: { line: TakenLine }) {
  const words = new Set(line.written.words.toLowerCase().split(/[^\p{L}\p{N}’']+/u));
  return line.written.raw.split(/(\s+)/).map((piece, i) => {
    const word = piece.toLowerCase().replace(/[^\p{L}\p{N}’']+/gu, '');
    const kind = word === '' ? undefined : words.has(word) ? 'drill' : 'dose';
    return (
      <span key={i} data-read={kind}>
        {piece}
      </span>
    );
  });
}

interface LineProps {
  /** The line and how it was read. */
  line: TakenLine;
  /** Its place, from 0. */
  index: number;
  /** What stands for it; null where it has to be chosen and is not. */
  choice: Choice | null;
  /** Seconds that it takes in the routine; null for heads. */
  seconds: number | null;
  /** Something else stands for it. */
  onChoose: (choice: Choice) => void;
  /** Its own words being written on where they stand; null where they are not. */
  typing: string | null;
  /** It is written on; null where that was given up. Nothing where the line is one of several parts. */
  onType: ((words: string | null) => void) | null;
  /** What was written is read in its place. */
  onEdit: (words: string) => void;
}

/** What a head says: the section it begins, or how what follows is done. */
function headText({ written }: TakenLine): string {
  const { head, words } = written;
  if (!head) return '';
  const minutes = head.minutes === null ? '' : `, ${head.minutes} min`;
  const rounds = head.circuit ? circuitText({ id: '', ...head.circuit }) : '';
  return [`${words}${minutes}`, rounds].filter(Boolean).join(': ') || 'Section';
}

function Options({ line, choice, onChoose }: Pick<LineProps, 'line' | 'choice' | 'onChoose'>) {
  const reference = useReference();
  const instead = line.readings[0]?.held?.instead;
  return (
    <span className={classes.options} role="group" aria-label={`Meanings of ${line.written.raw.trim()}`}>
      {line.readings.map((reading, i) =>
        reading.held ? null : (
          <button
            key={reading.item.drill}
            type="button"
            aria-pressed={choice === i}
            onClick={() => onChoose(i)}
          >
            {lineName(reference, reading.item)}
          </button>
        ),
      )}
      {line.kind === 'held' && instead ? (
        <button type="button" aria-pressed={choice === 'instead'} onClick={() => onChoose('instead')}>
          Instead: {lineName(reference, instead)}
        </button>
      ) : null}
      <button type="button" aria-pressed={choice === 'text'} onClick={() => onChoose('text')}>
        as text
      </button>
    </span>
  );
}

/** One line of paper with how it was understood; only what is open or pressed grows. */
function Line({ line, index, choice, seconds, onChoose, typing, onType, onEdit }: LineProps) {
  const reference = useReference();
  const [open, setOpen] = useState(false);
  const item = chosenItem(line, choice ?? 'text');
  const [mark, word] = KIND[line.kind];
  const fault = line.readings[0]?.held?.fault;
  const offers = line.readings.length > 0;
  return (
    <li className={classes.line} data-kind={line.kind}>
      <span className={classes.paper}>
        <i>{index + 1}</i>
        {typing === null ? (
          <span>
            <Paper line={line} />
          </span>
        ) : (
          <Textarea
            autoFocus
            autosize
            size="xs"
            w="100%"
            maxLength={2000}
            aria-label={`Line ${index + 1} of the paper`}
            description="Enter reads it again; Shift and Enter cuts it in two"
            value={typing}
            onChange={({ currentTarget }) => onType?.(currentTarget.value)}
            onBlur={() => onEdit(typing)}
            onKeyDown={(event) => {
              if (event.key === 'Escape') onType?.(null);
              if (event.key !== 'Enter' || event.shiftKey) return;
              event.preventDefault();
              onEdit(typing);
            }}
          />
        )}
        {onType && typing === null ? (
          <button
            type="button"
            className={classes.other}
            aria-label={`Change line ${index + 1} of the paper`}
            onClick={() => onType(line.paper)}
          >
            change
          </button>
        ) : null}
      </span>
      <span className={classes.kind}>
        <b aria-hidden>{mark}</b> {word}
      </span>
      <span className={classes.read}>
        {line.kind === 'joined' ? (
          <span className="muted">belongs to line {(line.joins ?? 0) + 1}</span>
        ) : line.kind === 'section' || line.kind === 'circuit' ? (
          <b>{headText(line)}</b>
        ) : choice === null ? (
          <b>What is meant?</b>
        ) : (
          <>
            <b>
              {item ? lineName(reference, item) : ''}
              {item && item.side !== 'both' ? ` ${SIDE_MARK[item.side]} ${item.side}` : ''}
            </b>
            <span className="muted">
              {item && line.kind !== 'rest' ? lineAmount(item) : ''}
              {choice === 'text' && ['sure', 'likely', 'choose', 'text'].includes(line.kind)
                ? item && item.amount > 0
                  ? ' · in your own words, its time estimated; nothing is known about its safety'
                  : 'only read, no time'
                : ''}
              {line.kind === 'held' && choice === 'text' ? 'kept as a note that it is not for now' : ''}
              {item?.note && choice !== 'text' ? ` · note: ${item.note}` : ''}
            </span>
            {line.kind === 'held' && fault ? (
              <span className={classes.fault}>
                {nameOf(reference, fault.drill)}: {ruleText(reference, fault.rule, fault.about)}
              </span>
            ) : null}
          </>
        )}
        {offers && line.kind !== 'choose' && line.kind !== 'held' ? (
          <button
            type="button"
            className={classes.other}
            aria-expanded={open}
            aria-label={`Another meaning of line ${index + 1}`}
            onClick={() => setOpen((now) => !now)}
          >
            other…
          </button>
        ) : null}
        {offers && (open || line.kind === 'choose' || line.kind === 'held') ? (
          <Options line={line} choice={choice} onChoose={onChoose} />
        ) : null}
      </span>
      <span className={classes.time}>{seconds === null || seconds === 0 ? '–' : duration(seconds)}</span>
    </li>
  );
}

interface WritingProps {
  /** The paper as it is. */
  text: string;
  /** Why something could not be taken; null when it could. */
  problem: string | null;
  /** It is written on. */
  onText: (text: string) => void;
  /** It is to be read. */
  onRead: (text: string) => void;
  /** Something could not be taken. */
  onProblem: (problem: string) => void;
  /** Back to the routine. */
  onClose: () => void;
}

/** The paper: pasted, typed or from a file. */
function Writing({ text, problem, onText, onRead, onProblem, onClose }: WritingProps) {
  const fromFile = (file: File | null) => {
    if (!file) return;
    if (file.size > 4 * MOST_TEXT) {
      onProblem('That file is too large for a list. Copy the lines out of it and paste them.');
      return;
    }
    file.text().then(
      (content) =>
        content.includes('\u0000')
          ? onProblem('That is no text file. Save the list as plain text, or paste it.')
          : onRead(content),
      () => onProblem('The file could not be read.'),
    );
  };
  return (
    <section className={`card ${classes.page}`} aria-label="Take over a list">
      <Title order={2} size={20}>
        Take over a list
      </Title>
      <Text size="sm" c="var(--muted)">
        Paste it as it is written: one line a drill, such as “calf raise 2x15 bent knee each side”, “hold 30
        s”, “3 rounds:”. Every line is kept.
      </Text>
      <Textarea
        aria-label="The list"
        autosize
        minRows={12}
        maxRows={24}
        data-autofocus
        autoFocus
        value={text}
        error={problem}
        maxLength={MOST_TEXT}
        onChange={({ currentTarget: { value } }) => onText(value)}
        onPaste={(event) => {
          // Into an empty field a pasted list is read at once; into a begun one it is only put in.
          const pasted = event.clipboardData.getData('text/plain');
          if (text.trim() !== '' || pasted.trim() === '') return;
          event.preventDefault();
          onRead(pasted);
        }}
      />
      <Group justify="space-between">
        <Group gap={8}>
          <Button variant="default" onClick={onClose}>
            Back
          </Button>
          <FileButton onChange={fromFile} accept="text/plain,text/csv,text/markdown,.txt,.csv,.md">
            {(props) => (
              <Button variant="subtle" {...props}>
                From a file…
              </Button>
            )}
          </FileButton>
        </Group>
        <Button disabled={text.trim() === ''} onClick={() => onRead(text)}>
          Read it
        </Button>
      </Group>
    </section>
  );
}

/** A list that is written on, and what was chosen for its lines. */
/** Is a line all that stands in its row, so that it can be written on there? */
const isOneLine = ({ paper, written }: TakenLine) => paper.trim() === written.raw.trim();

interface PaperKept {
  readonly text: string;
  readonly choices: Readonly<Record<string, Choice>>;
  /** The row that is being written on where it stands, and what it says by now. */
  readonly typing?: { readonly row: number; readonly words: string } | undefined;
}
const BLANK: PaperKept = { text: '', choices: {} };

/** What a choice is kept under: the words of the line, so that it holds for all alike, and when another line is changed. */
const alike = ({ written }: TakenLine) => written.raw.trim().toLowerCase();

/** The paper being written on or read, kept on this device until it is taken over: its lines once they are, and what was chosen for them. */
function useRead({ subject, request }: Asked, athleteId: string) {
  const { value: paper, set, done } = useKeptState(`list/${athleteId}`, 'A list to take over', BLANK);
  const { text, choices } = paper;
  const [writing, setWriting] = useState(text.trim() === '');
  const [lines, setLines] = useState<readonly TakenLine[] | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    if (writing) return undefined;
    let stale = false;
    compute.call('takeOver', subject, { request, text }).then(
      (answer) => {
        if (!stale) setLines(answer);
      },
      () => {
        if (!stale) setProblem('The list could not be read. Press “Read it” again.');
      },
    );
    return () => {
      stale = true;
    };
  }, [writing, text, subject, request]);
  const read = (next: string) => {
    set({ text: next.slice(0, MOST_TEXT), choices: {} });
    setProblem(next.length > MOST_TEXT ? `Only the first ${MOST_TEXT} characters were taken.` : null);
    setLines(null);
    setWriting(false);
  };
  return {
    text,
    choices,
    writing,
    lines,
    problem,
    setProblem,
    read,
    write: (next: string) => set({ text: next, choices: {} }),
    choose: (line: TakenLine, choice: Choice) =>
      set({ ...paper, choices: { ...choices, [alike(line)]: choice } }),
    typing: paper.typing ?? null,
    type: (row: number, words: string | null) =>
      set({ text, choices, typing: words === null ? undefined : { row, words } }),
    change: (row: number, words: string) =>
      set({ text: words.trim() === '' ? text : withRow(text, row, words).slice(0, MOST_TEXT), choices }),
    edit: () => setWriting(true),
    done,
  };
}

interface Props {
  /** The record and what was asked for. */
  asked: Asked;
  /** The routine being edited; null when none is. */
  draft: Draft | null;
  /** The lines as a routine: in place of what is there, or below it. */
  onTake: (taken: { items: RoutineItem[]; sections: Section[] }, below: boolean) => void;
  /** Back to the routine; the paper is kept. */
  onClose: () => void;
}

/** Takes over a list as written on paper: each line with what it means, several to choose from where it may mean more. */
export function TakeOver({ asked, draft, onTake, onClose }: Props) {
  const reference = useReference();
  const { athlete, occasion } = useWorkspace();
  const paper = useRead(asked, athlete.id);
  const { lines, choices, problem } = paper;
  if (paper.writing)
    return (
      <Writing
        text={paper.text}
        problem={problem}
        onText={paper.write}
        onRead={paper.read}
        onProblem={paper.setProblem}
        onClose={onClose}
      />
    );
  if (!lines)
    return (
      <section className={`card ${classes.page}`} aria-label="Take over a list">
        {problem ? <Alert color="copper">{problem}</Alert> : <Loader aria-label="Reading the list" />}
        <Button variant="default" onClick={paper.edit}>
          Edit the paper
        </Button>
      </section>
    );
  const chosen = lines.map(
    (line) => choices[alike(line)] ?? (line.kind === 'choose' ? null : firstChoice(line)),
  );
  const unchosen = new Set(lines.filter((_line, i) => chosen[i] === null).map(alike)).size;
  const all = chosen.map((choice) => choice ?? 'text');
  const taken = routineOfLines(reference, lines, all);
  const time = routineTime(reference, taken.items);
  const counts = new Map<TakenKind, number>();
  for (const { kind } of lines) counts.set(kind, (counts.get(kind) ?? 0) + 1);
  const there = draft?.items.length ?? 0;
  const rows = new Set(lines.map(({ row }) => row)).size;
  const tooMany = taken.items.length > MOST_ITEMS || taken.items.length === 0;
  const take = (below: boolean) => {
    onTake({ items: taken.items, sections: taken.sections }, below);
    paper.done();
  };
  return (
    <section className={`card ${classes.page}`} aria-label="Take over a list">
      <Group justify="space-between">
        <Title order={2} size={20}>
          Take over a list
        </Title>
        <Text size="sm" c="var(--muted)">
          {[...counts].map(([kind, count]) => `${count} ${KIND[kind][1]}`).join(', ')} · goes to{' '}
          {OCCASION_LABEL[occasion].toLowerCase()}
        </Text>
      </Group>
      <ol className={classes.lines} aria-label="Lines of the list">
        {lines.map((line, i) => (
          <Line
            key={`${i}/${line.written.raw}`}
            line={line}
            index={line.row}
            choice={chosen[i] ?? null}
            seconds={time.items[taken.places[i] ?? -1] ?? null}
            onChoose={(choice) => paper.choose(line, choice)}
            typing={paper.typing?.row === line.row && isOneLine(line) ? paper.typing.words : null}
            onType={isOneLine(line) ? (words) => paper.type(line.row, words) : null}
            onEdit={(words) => paper.change(line.row, words)}
          />
        ))}
      </ol>
      {problem ? <Alert color="copper">{problem}</Alert> : null}
      <Group justify="space-between" className={classes.foot}>
        <Text fw={650}>
          {duration(routineSeconds(reference, taken.items))}
          <Text span size="sm" c="var(--muted)" fw={400}>
            {' '}
            {unchosen === 0
              ? 'with the time of own words estimated'
              : `${unchosen === 1 ? 'one line has' : `${unchosen} lines have`} to be chosen first`}
          </Text>
        </Text>
        <Group gap={8}>
          <Button variant="default" onClick={onClose}>
            Back
          </Button>
          <Button variant="default" onClick={paper.edit}>
            Edit the paper
          </Button>
          {there > 0 ? (
            <Button
              variant="light"
              disabled={unchosen > 0 || taken.items.length === 0 || there + taken.items.length > MOST_ITEMS}
              onClick={() => take(true)}
            >
              Below the {there} there
            </Button>
          ) : null}
          <Button disabled={tooMany || unchosen > 0} onClick={() => take(false)}>
            {there > 0 ? 'Replace them' : 'Take over'}, {rows} of {rows} lines kept
          </Button>
        </Group>
      </Group>
      {taken.items.length > MOST_ITEMS ? (
        <Text size="sm" c="var(--danger)" role="alert">
          A routine holds {MOST_ITEMS} lines; this list makes {taken.items.length}. Cut it in two.
        </Text>
      ) : null}
    </section>
  );
}
