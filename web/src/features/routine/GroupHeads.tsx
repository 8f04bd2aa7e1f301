import { ActionIcon } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import type { Circuit, Section } from '@yonder/core/domain';
import { duration } from '@yonder/core/words';
import { UnitInput } from '../../components/UnitInput.tsx';
import { WordsInput } from '../../components/WordsInput.tsx';
import type { ComponentProps } from 'react';
import classes from './Compose.module.css';
import { Stepper } from './Stepper.tsx';

interface SectionProps {
  /** The part and how long it is meant to be. */
  section: Section;
  /** Seconds that its lines take, with changing over. */
  seconds: number;
  /** Another name or other minutes. */
  onChange: (change: Partial<Section>) => void;
  /** The part is taken away; its lines stay. */
  onRemove: () => void;
}

/** Head of a part that the practitioner named: its name, its minutes, and what it takes. */
export function SectionHead({ section, seconds, onChange, onRemove }: SectionProps) {
  const { name, minutes } = section;
  const over = minutes === null ? 0 : seconds - minutes * 60;
  return (
    <tr className={classes.section}>
      <td colSpan={7}>
        <div>
          <WordsInput
            label="Name of the section"
            variant="unstyled"
            className={classes.sectionName}
            most={80}
            needed
            value={name}
            onSay={(said) => onChange({ name: said ?? name })}
          />
          <UnitInput
            size="xs"
            w={92}
            unit="min"
            aria-label={`Minutes of ${name}`}
            placeholder="any"
            min={0.5}
            max={120}
            value={minutes}
            onChange={(next) =>
              onChange({ minutes: next !== null && next >= 0.5 && next <= 120 ? next : null })
            }
          />
          <span className={classes.taken} data-over={over > 0 || undefined}>
            {duration(seconds)}
            {over > 0 ? `, ${duration(over)} over` : ''}
          </span>
          <ActionIcon variant="subtle" color="gray" aria-label={`Remove section ${name}`} onClick={onRemove}>
            <IconX size={15} />
          </ActionIcon>
        </div>
      </td>
    </tr>
  );
}

interface CircuitProps {
  /** How the group goes. */
  circuit: Circuit;
  /** Seconds of the whole group. */
  seconds: number;
  /** Another way of going. */
  onChange: (change: Partial<Omit<Circuit, 'id'>>) => void;
  /** Its drills are done one by one again. */
  onEnd: () => void;
}

const PACES = [
  { value: 'free', label: 'as long as it takes' },
  { value: 'clock', label: 'stations by the clock' },
  { value: 'every', label: 'a start every…' },
] as const;

/** Seconds at which each pace begins. */
const FIRST_PACE = {
  free: undefined,
  clock: { by: 'clock', work: 30, rest: 15 },
  every: { by: 'every', seconds: 60 },
} as const;

/** A figure of the group with its unit. */
function Counted({ unit, ...figure }: ComponentProps<typeof Stepper> & { unit: string }) {
  return (
    <label>
      <Stepper {...figure} /> {unit}
    </label>
  );
}

/** Head of a group that is done in rounds: how many, paced by what, growing or not, with what rest between. */
export function CircuitHead({ circuit, seconds, onChange, onEnd }: CircuitProps) {
  const { rounds, pace, step = 0, restSeconds = 0 } = circuit;
  return (
    <tr className={classes.circuit}>
      <td colSpan={7}>
        <div role="group" aria-label="In rounds">
          <b>In rounds</b>
          <Counted
            label="Rounds"
            unit={rounds === 1 ? 'round' : 'rounds'}
            value={rounds}
            min={1}
            max={20}
            step={1}
            onChange={(v) => onChange({ rounds: v })}
          />
          <select
            aria-label="Pace of the rounds"
            value={pace?.by ?? 'free'}
            onChange={({ currentTarget: { value } }) =>
              onChange({ pace: FIRST_PACE[value as keyof typeof FIRST_PACE] })
            }
          >
            {PACES.map(({ value, label }) => (
              <option key={value} value={value}>
                {label}
              </option>
            ))}
          </select>
          {pace?.by === 'clock' ? (
            <>
              <Counted
                label="Seconds at a station"
                unit="s on"
                value={pace.work}
                min={5}
                max={300}
                step={5}
                onChange={(work) => onChange({ pace: { ...pace, work } })}
              />
              <Counted
                label="Seconds between stations"
                unit="s off"
                value={pace.rest}
                min={0}
                max={300}
                step={5}
                onChange={(rest) => onChange({ pace: { ...pace, rest } })}
              />
            </>
          ) : null}
          {pace?.by === 'every' ? (
            <Counted
              label="Seconds from start to start"
              unit="s"
              value={pace.seconds}
              min={20}
              max={300}
              step={5}
              onChange={(next) => onChange({ pace: { by: 'every', seconds: next } })}
            />
          ) : null}
          {pace?.by === 'clock' ? null : (
            <Counted
              label="More each round"
              unit="more each round"
              value={step}
              min={-10}
              max={10}
              step={1}
              onChange={(v) => onChange({ step: v === 0 ? undefined : v })}
            />
          )}
          <Counted
            label="Rest between rounds"
            unit="s between rounds"
            value={restSeconds}
            min={0}
            max={600}
            step={10}
            onChange={(v) => onChange({ restSeconds: v === 0 ? undefined : v })}
          />
          <span className={classes.taken}>{duration(seconds)}</span>
          <button type="button" className={classes.plain} onClick={onEnd}>
            take apart
          </button>
        </div>
      </td>
    </tr>
  );
}
