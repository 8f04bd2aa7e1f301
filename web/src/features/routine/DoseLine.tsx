import { Checkbox, TextInput } from '@mantine/core';
import type { RoutineItem } from '@yonder/core/domain';
import { hasCadence, tempoSeconds } from '@yonder/core/dose';
import { isLine } from '@yonder/core/reference';
import type { Drill } from '@yonder/core/reference';
import { useState } from 'react';
import { UnitInput } from '../../components/UnitInput.tsx';
import { WordsInput } from '../../components/WordsInput.tsx';
import classes from './Routine.module.css';
import { Stepper } from './Stepper.tsx';

interface Props {
  /** The item whose dose is shown. */
  item: RoutineItem;
  /** Its drill, for ranges and units. */
  drill: Drill;
  /** The item below, to be joined with it into a circuit; null for the last. */
  below: RoutineItem | null;
  /** Another dose. */
  onChange: (change: Partial<RoutineItem>) => void;
  /** Puts this item and the one below into one circuit, changes its rounds, or takes it apart (null). */
  onCircuit: (rounds: number | null) => void;
  /** Puts it on the clock by itself. */
  onClock: () => void;
}

type Change = Pick<Props, 'item' | 'drill' | 'onChange'>;

/** Hold of each repetition, in seconds or in breaths. */
function Hold({ item, drill, onChange }: Change) {
  if (item.measure !== 'reps') return null;
  const breaths = item.holdBreaths !== undefined;
  const held = item.holdSeconds ?? 0;
  return (
    <span className={classes.setup}>
      <span>hold</span>
      <Stepper
        label={`Hold of ${drill.name}`}
        value={breaths ? (item.holdBreaths ?? 1) : held}
        min={breaths ? 1 : 0}
        max={breaths ? 20 : 120}
        step={1}
        onChange={(v) => onChange(breaths ? { holdBreaths: v } : { holdSeconds: v === 0 ? null : v })}
      />
      <select
        className={classes.select}
        aria-label={`Hold of ${drill.name} counted in`}
        value={breaths ? 'breaths' : 'seconds'}
        onChange={(e) =>
          onChange({
            holdBreaths: e.currentTarget.value === 'breaths' ? Math.max(1, Math.round(held / 4)) : undefined,
          })
        }
      >
        <option value="seconds">s</option>
        <option value="breaths">breaths</option>
      </select>
    </span>
  );
}

function Tempo({ item, drill, onChange }: Change) {
  const [text, setText] = useState<string | null>(null);
  if (tempoSeconds(drill.dose.tempo) === null) return null;
  const shown = text ?? item.tempo ?? drill.dose.tempo ?? '';
  const wrong = tempoSeconds(shown) === null;
  return (
    <span className={classes.setup}>
      <span>tempo</span>
      <TextInput
        size="xs"
        w={76}
        aria-label={`Tempo of ${drill.name}`}
        value={shown}
        error={wrong}
        title={wrong ? 'Seconds such as 3-1-1: down, pause, up' : 'Seconds down, pause, up'}
        onChange={(e) => {
          setText(e.currentTarget.value);
          if (tempoSeconds(e.currentTarget.value) !== null) onChange({ tempo: e.currentTarget.value });
        }}
        onBlur={() => setText(null)}
      />
    </span>
  );
}

/** Each side with sets and amount of its own. */
function Uneven({ item, drill, onChange }: Change) {
  if (!drill.unilateral || item.side !== 'both') return null;
  const even = { sets: item.sets, amount: item.amount };
  const sides = item.perSide ?? { left: even, right: even };
  const put = (side: 'left' | 'right', part: Partial<typeof even>) =>
    onChange({ perSide: { ...sides, [side]: { ...sides[side], ...part } } });
  return (
    <>
      <Checkbox
        size="xs"
        label="sides by themselves"
        checked={item.perSide !== undefined}
        onChange={(e) => onChange({ perSide: e.currentTarget.checked ? sides : undefined })}
      />
      {item.perSide
        ? (['left', 'right'] as const).map((side) => (
            <span key={side} className={classes.setup}>
              <span>{side === 'left' ? '◁' : '▷'}</span>
              <Stepper
                label={`Sets of ${drill.name}, ${side}`}
                value={sides[side].sets}
                min={1}
                max={8}
                step={1}
                onChange={(sets) => put(side, { sets })}
              />
              ×
              <Stepper
                label={`Amount of ${drill.name}, ${side}`}
                value={sides[side].amount}
                min={1}
                max={Math.max(drill.dose.amount.max * 2, 10)}
                step={drill.dose.measure === 'reps' || drill.dose.measure === 'contacts' ? 1 : 5}
                onChange={(amount) => put(side, { amount })}
              />
            </span>
          ))
        : null}
    </>
  );
}

function Setup({ item, drill, onChange }: Change) {
  return drill.setupVariables.map((variable) => (
    <label key={variable.id} className={classes.setup} title={`Harder: ${variable.harder}`}>
      <span>{variable.name}</span>
      <select
        className={classes.select}
        value={String(item.setup[variable.id] ?? variable.default)}
        onChange={(e) => {
          const step = variable.steps.find((s) => String(s) === e.currentTarget.value) ?? variable.default;
          onChange({ setup: { ...item.setup, [variable.id]: step } });
        }}
      >
        {variable.steps.map((step) => (
          <option key={step} value={String(step)}>
            {step}
            {variable.unit ? ` ${variable.unit}` : ''}
          </option>
        ))}
      </select>
      <span className={classes.harder}>▲ {variable.harder}</span>
    </label>
  ));
}

/** Rounds are begun here; how they go is said at their head. */
function Rounds({ item, below, onCircuit, onClock }: Omit<Props, 'onChange' | 'drill'>) {
  if (item.circuit) return null;
  return (
    <>
      {below && !isLine(below.drill) ? (
        <button type="button" className={classes.link} onClick={() => onCircuit(2)}>
          in rounds with the next drill
        </button>
      ) : null}
      <button type="button" className={classes.link} onClick={onClock}>
        a start every minute
      </button>
    </>
  );
}

/** A range, and as many as stay clean. */
function Open({ item, drill, onChange }: Change) {
  if (item.perSide) return null;
  return (
    <>
      <Checkbox
        size="xs"
        label="a range"
        aria-label={`A range for ${drill.name}`}
        checked={item.amountFrom !== undefined}
        disabled={item.amount < 2}
        onChange={(e) =>
          onChange({
            amountFrom: e.currentTarget.checked ? Math.max(1, Math.floor(item.amount * 0.7)) : undefined,
          })
        }
      />
      <Checkbox
        size="xs"
        label="as many as stay clean"
        checked={item.asMany ?? false}
        onChange={(e) => onChange({ asMany: e.currentTarget.checked ? true : undefined })}
      />
    </>
  );
}

/** Grip, cadence, and a word beside the line. */
function Said({ item, drill, onChange }: Change) {
  return (
    <>
      <label className={classes.setup}>
        <span>grip</span>
        <WordsInput
          label={`Grip of ${drill.name}`}
          w={92}
          most={60}
          value={item.grip}
          onSay={(grip) => onChange({ grip })}
        />
      </label>
      {hasCadence(drill) ? (
        <span className={classes.setup}>
          <span>cadence</span>
          <UnitInput
            size="xs"
            w={92}
            unit="/min"
            aria-label={`Cadence of ${drill.name}`}
            min={5}
            max={240}
            value={item.cadence ?? null}
            onChange={(v) => onChange({ cadence: v !== null && v >= 5 && v <= 240 ? v : undefined })}
          />
        </span>
      ) : null}
      <label className={classes.setup} style={{ flex: '1 1 180px' }}>
        <span>note</span>
        <WordsInput
          label={`Note beside ${drill.name}`}
          style={{ flex: 1 }}
          most={500}
          value={item.note}
          onSay={(note) => onChange({ note })}
        />
      </label>
    </>
  );
}

/** Everything of a dose beyond sets, amount and rest; for the selected drill alone, so that the list stays calm. */
export function DoseLine({ item, drill, below, onChange, onCircuit, onClock }: Props) {
  return (
    <div className={classes.doseLine}>
      <Hold item={item} drill={drill} onChange={onChange} />
      <Tempo item={item} drill={drill} onChange={onChange} />
      <Checkbox
        size="xs"
        label="both ways round"
        checked={item.bothWays ?? false}
        onChange={(e) => onChange({ bothWays: e.currentTarget.checked ? true : undefined })}
      />
      <Uneven item={item} drill={drill} onChange={onChange} />
      <Setup item={item} drill={drill} onChange={onChange} />
      <Open item={item} drill={drill} onChange={onChange} />
      <Rounds item={item} below={below} onCircuit={onCircuit} onClock={onClock} />
      <Said item={item} drill={drill} onChange={onChange} />
    </div>
  );
}
