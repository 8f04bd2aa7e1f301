import { useDraggable } from '@dnd-kit/core';
import { Alert, Button, Group, TextInput } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { IconSearch } from '@tabler/icons-react';
import type { Held } from '@yonder/core/builder';
import type { Draft } from '@yonder/core/contracts';
import type { RoutineItem } from '@yonder/core/domain';
import { dosedByDefault, itemSeconds } from '@yonder/core/dose';
import { kitText } from '@yonder/core/reference';
import type { Drill, Reference } from '@yonder/core/reference';
import { restLine, wordsLine } from '@yonder/core/routine';
import { findDrills, isSaying } from '@yonder/core/takeover';
import { kindText, duration, nameOf, ruleText } from '@yonder/core/words';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { KeyboardEvent } from 'react';
import { useReference } from '../../app/reference.tsx';
import { compute } from '../../workers/client.ts';
import type { Asked } from '../../workers/protocol.ts';
import { Thumb } from '../picture/Thumb.tsx';
import classes from './Compose.module.css';

const MOST = 8;
/** What a result carries while it is dragged into the list. */
export const ADD = 'add/';

interface ResultProps {
  /** The drill found. */
  drill: Drill;
  /** The one that Enter adds. */
  active: boolean;
  /** It was pressed. */
  onAdd: () => void;
}

function Result({ drill, active, onAdd }: ResultProps) {
  const reference = useReference();
  const { attributes, listeners, setNodeRef, transform, isDragging } = useDraggable({
    id: `${ADD}${drill.id}`,
  });
  const { role: _role, ...spoken } = attributes;
  return (
    <li
      ref={setNodeRef}
      style={
        transform ? { transform: `translate3d(${transform.x}px, ${transform.y}px, 0)`, zIndex: 5 } : undefined
      }
      data-active={active || undefined}
      data-dragged={isDragging || undefined}
    >
      <button type="button" {...spoken} {...listeners} aria-label={`Add ${drill.name}`} onClick={onAdd}>
        <Thumb drill={drill} px={38} />
        <b>{drill.name}</b>
        <span>
          {kindText(reference, drill)}, level {drill.level}
          {kitText(drill) ? `, ${kitText(drill)}` : ''}
        </span>
        <i>{duration(itemSeconds(drill, dosedByDefault(drill)))}</i>
      </button>
    </li>
  );
}

/** What safety says against a drill that was to come in, with the nearest that is allowed. */
function NotToday({ held, onInstead }: { held: Held; onInstead: (item: RoutineItem) => void }) {
  const reference = useReference();
  const { fault, instead } = held;
  return (
    <Alert color="red" role="alert" p={8} mt={6} title={`${nameOf(reference, fault.drill)}: not today`}>
      {ruleText(reference, fault.rule, fault.about)}
      {instead ? (
        <Button ml={8} size="compact-xs" onClick={() => onInstead(instead)}>
          Add {nameOf(reference, instead.drill).toLowerCase()} instead
        </Button>
      ) : (
        ' Nothing near it is allowed today.'
      )}
    </Alert>
  );
}

/** Drills offered for what is typed, best first; none for what is no drill. */
function drillsFor(reference: Reference, text: string): Drill[] {
  if (isSaying(text)) return [];
  return [...(findDrills(reference, text, MOST) ?? [])]
    .flatMap(([id, score]) => {
      const drill = reference.drills.get(id);
      return drill && !drill.archived ? [{ drill, score }] : [];
    })
    .sort((a, b) => b.score - a.score)
    .slice(0, MOST)
    .map(({ drill }) => drill);
}

/**
 * Puts in what a typed text comes to, once however often it was sent, into the list as it is by then; `onIn` is told which text
 * that was, as more may have been typed since. Says whether the last one failed.
 */
function useSending(put: (items: RoutineItem[]) => void, onIn: (sent: string) => void) {
  const [failed, setFailed] = useState(false);
  const sending = useRef<string | null>(null);
  const latest = useRef(put);
  useEffect(() => {
    latest.current = put;
  });
  const send = (text: string, work: () => Promise<RoutineItem[] | null>) => {
    if (sending.current === text) return;
    sending.current = text;
    setFailed(false);
    work()
      .then((items) => {
        if (!items) return;
        onIn(text);
        latest.current(items);
      })
      .catch(() => setFailed(true))
      .finally(() => {
        if (sending.current === text) sending.current = null;
      });
  };
  return { failed, send };
}

interface Props {
  /** The routine being edited. */
  draft: Draft;
  /** The record and what was asked for. */
  asked: Asked;
  /** Name of the line after which things come in; empty = at the end. */
  after: string;
  /** Lines to put in there. */
  onPut: (items: RoutineItem[]) => void;
  /** A part begins at the line. */
  onSection: () => void;
  /** A written list is taken over. */
  onTakeOver: () => void;
}

/** Puts anything into the list: a drill found by what it is for, a section, a rest, own words, a whole written list. */
export function AddLine({ draft, asked, after, onPut, onSection, onTakeOver }: Props) {
  const reference = useReference();
  const [text, setText] = useState('');
  const [typed] = useDebouncedValue(text, 80);
  const [active, setActive] = useState(0);
  const [refused, setRefused] = useState<Held | null>(null);
  const shown = useRef<HTMLUListElement>(null);
  // The list of results stays above the bar at the foot of the page.
  useEffect(() => {
    if (typed.trim() !== '') shown.current?.scrollIntoView({ block: 'nearest' });
  }, [typed]);
  const found = useMemo(() => drillsFor(reference, typed), [reference, typed]);
  const put = (items: RoutineItem[]) => {
    setRefused(null);
    onPut(items);
  };
  const { failed, send } = useSending(put, (sent) => {
    setText((now) => (now === sent ? '' : now));
    setActive(0);
  });
  const { subject, request } = asked;
  const add = (drill: Drill) =>
    send(text, async () => {
      const offer = await compute.call('offer', subject, { request, drill: drill.id, text: text.trim() });
      if (offer.held) setRefused(offer.held);
      return offer.held ? null : [offer.item];
    });
  const inWords = () =>
    send(text, async () => [...(await compute.call('ownWords', subject, { request, text: text.trim() }))]);
  const keys = (event: KeyboardEvent) => {
    const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (by !== 0) {
      event.preventDefault();
      setActive((now) => Math.min(Math.max(0, found.length - 1), Math.max(0, now + by)));
    }
    if (event.key === 'Enter' && text.trim() !== '') {
      event.preventDefault();
      // Who types fast means what stands there, not what was drawn last.
      const drawn = typed === text;
      const chosen = drawn ? (found[active] ?? found[0]) : drillsFor(reference, text)[0];
      if (chosen) add(chosen);
      else inWords();
    }
    if (event.key === 'Escape') setText('');
  };
  return (
    <div className={classes.add}>
      <Group gap={6}>
        <TextInput
          className={classes.search}
          size="xs"
          leftSection={<IconSearch size={15} />}
          aria-label="Add a drill"
          placeholder="Add: side plank 2x20s L, calf raise 3x12, stiff ankle band, rest 1 min…"
          value={text}
          onChange={({ currentTarget: { value } }) => {
            setText(value);
            setActive(0);
            setRefused(null);
          }}
          onKeyDown={keys}
        />
        <Button size="compact-sm" variant="subtle" onClick={onSection}>
          + Section
        </Button>
        <Button size="compact-sm" variant="subtle" onClick={() => put([restLine(60)])}>
          + Rest
        </Button>
        <Button size="compact-sm" variant="subtle" onClick={() => put([wordsLine('What is done', 120)])}>
          + Own words
        </Button>
        <Button size="compact-sm" variant="subtle" onClick={onTakeOver}>
          Take over a list…
        </Button>
      </Group>
      {refused ? <NotToday held={refused} onInstead={(item) => put([item])} /> : null}
      {failed ? (
        <p className={classes.hint} role="alert">
          It could not be worked out. Press again.
        </p>
      ) : null}
      {typed.trim() !== '' ? (
        <>
          <p className={classes.hint}>
            {found.length === 0
              ? isSaying(typed)
                ? 'Enter puts it in as it is written.'
                : 'No drill is called that. Enter puts it in with your own words, sets, amount and side as typed.'
              : draft.items.length === 0
                ? 'Enter adds the marked one.'
                : `Enter adds the marked one ${after ? `after ${after}` : 'at the end'}; or drag one into the list.`}
          </p>
          <ul className={classes.results} aria-label="Drills found" ref={shown}>
            {found.map((drill, i) => (
              <Result key={drill.id} drill={drill} active={i === active} onAdd={() => add(drill)} />
            ))}
          </ul>
        </>
      ) : null}
    </div>
  );
}
