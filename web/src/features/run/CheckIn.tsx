import { ActionIcon, Button, Group, Select, Text, TextInput } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import type { CheckIn as Said } from '@yonder/core/domain';
import { nameOf, withSide } from '@yonder/core/words';
import { useEffect, useRef } from 'react';
import { Allowed } from '../../app/Allowed.tsx';
import { useKeptState } from '../../app/kept/useKept.ts';
import { useReference } from '../../app/reference.tsx';
import { dayText } from '../../app/today.ts';
import { Refusal } from '../../components/Refusal.tsx';
import { SideMark } from '../../components/SideMark.tsx';
import { UnitInput } from '../../components/UnitInput.tsx';
import { useCheckInQuery, usePutCheckInMutation } from '../athletes/saidEndpoints.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { PainPlace } from '../story/PainPlace.tsx';
import { PAIN_WHEN, painWhenText } from '../story/painWhen.ts';
import classes from './Run.module.css';

type Sore = Said['sore'][0];
/** One place that hurts, as it is being said. */
interface TypedPlace {
  readonly region: string;
  readonly side: string;
  readonly aspect: string | null;
  readonly feel: string | null;
  readonly when: string | null;
  readonly nrs: number | null;
}

/** What was typed as the server takes it, which refuses what is none. */
function soreOf({ region, side, aspect, feel, when }: TypedPlace, nrs: number): Sore {
  const told = { ...(aspect ? { aspect } : {}), ...(feel ? { feel } : {}), ...(when ? { when } : {}) };
  return { region, side, nrs, ...told } as Sore;
}

interface FactsProps {
  /** What was said so far. */
  said: Omit<Said, 'date'>;
  /** True while it is being stored. */
  busy: boolean;
  /** At short notice: the time can be told in throws. */
  called: boolean;
  /** Something is said. */
  onSay: (change: Partial<Omit<Said, 'date'>>) => Promise<unknown>;
}

/** Questions with a few answers, in the words of the check-in. */
const ASKED = [
  {
    key: 'slept',
    label: 'Slept',
    data: [
      { value: 'badly', label: 'badly' },
      { value: 'so-so', label: 'so-so' },
      { value: 'well', label: 'well' },
    ],
  },
  {
    key: 'tension',
    label: 'Feels',
    data: [
      { value: 'calm', label: 'calm' },
      { value: 'tense', label: 'tense' },
      { value: 'very-tense', label: 'very tense' },
    ],
  },
  {
    key: 'space',
    label: 'Room',
    data: [
      { value: 'mat', label: 'a mat' },
      { value: 'lane', label: 'room to run' },
    ],
  },
] as const;

/** Seconds from throw to throw at short notice (editable convention, low confidence). */
const SECONDS_PER_THROW = 15;

/** One question with a few answers; the same again takes it back. */
function Ask({
  label,
  data,
  value,
  busy,
  onSay,
}: {
  label: string;
  data: readonly { value: string; label: string }[];
  value: string | null;
  busy: boolean;
  onSay: (value: string | null) => void;
}) {
  return (
    <div className={classes.ask} role="group" aria-label={label}>
      <span>{label}</span>
      <Group gap={6}>
        {data.map((one) => (
          <Button
            key={one.value}
            size="compact-sm"
            variant={one.value === value ? 'filled' : 'default'}
            aria-pressed={one.value === value}
            disabled={busy}
            onClick={() => onSay(one.value === value ? null : one.value)}
          >
            {one.label}
          </Button>
        ))}
      </Group>
    </div>
  );
}

/** How it was slept, how tense, how long and where there is today, warm since when, anything new. */
function Facts({ said, busy, called, onSay }: FactsProps) {
  const send = (change: Partial<Omit<Said, 'date'>>) => void onSay(change).catch(() => undefined); // shown below
  const news = useTyped('Anything new?', said.news);
  const whole = (value: number | null, most: number) =>
    value === null ? null : Math.min(most, Math.max(0, Math.round(value)));
  return (
    <div className={classes.facts}>
      {ASKED.map(({ key, label, data }) => (
        <Ask
          key={key}
          label={label}
          data={data}
          value={said[key]}
          busy={busy}
          onSay={(value) => send({ [key]: value })}
        />
      ))}
      <Group gap={10} align="flex-end">
        <Typed
          label={called ? 'Ready in' : 'Time today'}
          unit="min"
          value={said.minutes}
          onSay={(value) => onSay({ minutes: value === null ? null : Math.max(1, whole(value, 120) ?? 1) })}
        />
        {called ? (
          <Typed
            key={said.minutes}
            label="or in"
            unit="throws"
            value={null}
            onSay={(throws) =>
              onSay({ minutes: Math.max(1, whole(((throws ?? 0) * SECONDS_PER_THROW) / 60, 120) ?? 1) })
            }
          />
        ) : null}
        <Typed
          label="Last warm"
          unit="min ago"
          value={said.warmMinutesAgo}
          onSay={(value) => onSay({ warmMinutesAgo: whole(value, 600) })}
        />
        <TextInput
          size="xs"
          label="Anything new?"
          maxLength={500}
          style={{ flex: '1 1 180px' }}
          value={news.value}
          onChange={({ currentTarget }) => news.set(currentTarget.value)}
          onBlur={() => {
            const words = news.value.trim();
            if (words !== said.news)
              onSay({ news: words }).then(news.done, () => undefined); // shown below
            else news.done();
          }}
        />
      </Group>
    </div>
  );
}

/** What is typed and not said yet, kept on this device; what was said elsewhere meanwhile takes its place. */
function useTyped<T>(label: string, said: T) {
  const { athlete, on } = useWorkspace();
  const { value, set, done, discard } = useKeptState(`check-in/${athlete.id}/${on}/${label}`, label, said);
  const was = useRef(said);
  useEffect(() => {
    if (was.current === said) return;
    was.current = said;
    discard();
  }, [said, discard]);
  return { value, set, done };
}

interface TypedProps {
  /** What is asked. */
  label: string;
  /** In what it is counted. */
  unit: string;
  /** What was said; null = nothing. */
  value: number | null;
  /** It is said. */
  onSay: (value: number | null) => Promise<unknown>;
}

/** A figure that is said when the field is left or Enter is pressed. */
function Typed({ label, unit, value, onSay }: TypedProps) {
  const typed = useTyped(label, value);
  const commit = () => {
    if (typed.value !== value) onSay(typed.value).then(typed.done, () => undefined); // why not is shown below
  };
  return (
    <UnitInput
      size="xs"
      w={110}
      label={label}
      unit={unit}
      min={0}
      max={600}
      value={typed.value}
      onChange={typed.set}
      onBlur={commit}
      onKeyUp={(event) => event.key === 'Enter' && commit()}
    />
  );
}

/** Before the session: how today is, and anything that hurts. It counts on this day alone, and what it forbids is left out. */
export function CheckIn() {
  const reference = useReference();
  const { athlete, on, region, occasion } = useWorkspace();
  const { data } = useCheckInQuery({ athleteId: athlete.id, date: on });
  const [put, { isLoading, error }] = usePutCheckInMutation();
  const typed = useKeptState<TypedPlace | null>(`check-in/${athlete.id}/${on}`, 'What hurts today', null);
  if (!data) return null;
  const { date: _date, by: _by, ...said0 } = data;
  const { sore } = data;
  const say = (change: Partial<Omit<Said, 'date'>>) =>
    put({ athleteId: athlete.id, date: on, body: { ...said0, ...change } }).unwrap();
  const store = (next: readonly Sore[]) => say({ sore: [...next] });
  const said = typed.value;
  const add = () => {
    if (!said || said.nrs === null) return;
    const { nrs } = said;
    const others = sore.filter((one) => one.region !== said.region || one.side !== said.side);
    store([...others, soreOf(said, nrs)]).then(typed.discard, () => undefined); // shown below
  };
  return (
    <section className={classes.checkIn} aria-label="Before the session">
      <Facts said={data} busy={isLoading} called={occasion === 'called-in'} onSay={say} />
      <Text size="sm" fw={650}>
        Anything that hurts today?
      </Text>
      {sore.map((one) => {
        const place = withSide(nameOf(reference, one.region), one.side);
        return (
          <div key={`${one.region}/${one.side}`} className={classes.sore}>
            <SideMark side={one.side} />
            <span>
              {place} {one.nrs}/10{one.when ? ` ${painWhenText(one.when)}` : ''}
              {one.aspect ? `, ${one.aspect}` : ''}
              {one.feel ? `, feels like ${one.feel.replace('-', ' ')}` : ''}
            </span>
            <Allowed least="assistant">
              <ActionIcon
                size="sm"
                variant="subtle"
                aria-label={`Take back: ${place} hurts`}
                onClick={() => void store(sore.filter((other) => other !== one)).catch(() => undefined)}
              >
                <IconX size={14} />
              </ActionIcon>
            </Allowed>
          </div>
        );
      })}
      {sore.length === 0 && !said ? (
        <Text size="sm" c="var(--muted)">
          Nothing said for {dayText(on)} beside what the story holds.
        </Text>
      ) : null}
      <Allowed least="assistant">
        {said ? (
          <Group align="flex-end" gap="xs">
            <PainPlace place={said} onChange={(change) => typed.set({ ...said, ...change })} />
            <Select
              size="xs"
              w={122}
              label="When"
              placeholder="not said"
              clearable
              data={PAIN_WHEN}
              value={said.when ?? null}
              onChange={(when) => typed.set({ ...said, when })}
            />
            <UnitInput
              size="xs"
              w={84}
              label="How much"
              unit="/10"
              min={0}
              max={10}
              value={said.nrs}
              onChange={(nrs) => typed.set({ ...said, nrs })}
            />
            <Button size="xs" variant="light" loading={isLoading} disabled={said.nrs === null} onClick={add}>
              Say it
            </Button>
            <Button size="xs" variant="subtle" onClick={typed.discard}>
              Leave it
            </Button>
          </Group>
        ) : (
          <Button
            size="compact-sm"
            variant="default"
            onClick={() =>
              typed.set({ region, side: 'left', aspect: null, feel: null, when: null, nrs: null })
            }
          >
            Something hurts
          </Button>
        )}
      </Allowed>
      <Refusal error={error} mt={4} />
    </section>
  );
}
