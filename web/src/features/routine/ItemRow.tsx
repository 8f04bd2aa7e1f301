import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { ActionIcon } from '@mantine/core';
import { IconGripVertical, IconPin, IconPinFilled, IconX } from '@tabler/icons-react';
import type { RoutineItem } from '@yonder/core/domain';
import { itemSeconds } from '@yonder/core/dose';
import type { Drill } from '@yonder/core/reference';
import { CATEGORY_LABEL, duration } from '@yonder/core/words';
import classes from './Routine.module.css';

interface Props {
  item: RoutineItem;
  index: number;
  drill: Drill;
  selected: boolean;
  pinned: boolean;
  /** Something forbids it or asks for care today. */
  caution: boolean;
  onSelect: () => void;
  onChange: (change: Partial<RoutineItem>) => void;
  onPin: () => void;
  onRemove: () => void;
}

const UNIT = { reps: 'reps', 'hold-seconds': 's', seconds: 's', metres: 'm', contacts: 'contacts' } as const;
const STEP = { reps: 1, 'hold-seconds': 5, seconds: 5, metres: 5, contacts: 1 } as const;

interface StepperProps {
  label: string;
  value: number;
  min: number;
  max: number;
  step: number;
  onChange: (value: number) => void;
}

/** A figure edited by one key a step: arrow up and down, or typed. */
function Stepper({ label, value, min, max, step, onChange }: StepperProps) {
  return (
    <input
      type="number"
      className={classes.stepper}
      aria-label={label}
      value={value}
      min={min}
      max={max}
      step={step}
      onChange={(event) => {
        const next = event.currentTarget.valueAsNumber;
        if (Number.isFinite(next)) onChange(Math.min(max, Math.max(min, next)));
      }}
    />
  );
}

function SideSelect({ item, drill, onChange }: Pick<Props, 'item' | 'drill' | 'onChange'>) {
  if (!drill.unilateral) return <span className="muted">{drill.alternating ? 'alternating' : ''}</span>;
  return (
    <select
      className={classes.select}
      aria-label={`Side of ${drill.name}`}
      value={item.side}
      onChange={(e) => onChange({ side: e.currentTarget.value as RoutineItem['side'] })}
    >
      <option value="left">◁ left</option>
      <option value="right">▷ right</option>
      <option value="both">◁▷ both</option>
    </select>
  );
}

function SetupSelects({ item, drill, onChange }: Pick<Props, 'item' | 'drill' | 'onChange'>) {
  return (
    <>
      {drill.setupVariables.slice(0, 2).map((variable) => (
        <label key={variable.id} className={classes.setup} title={`harder: ${variable.harder}`}>
          <span>{variable.name}</span>
          <select
            className={classes.select}
            value={String(item.setup[variable.id] ?? variable.default)}
            onChange={(e) => {
              const step =
                variable.steps.find((s) => String(s) === e.currentTarget.value) ?? variable.default;
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
        </label>
      ))}
    </>
  );
}

/** One drill of the routine: side, sets, amount, rest, set-up, exact seconds; drag or move it by the handle. */
export function ItemRow({
  item,
  index,
  drill,
  selected,
  pinned,
  caution,
  onSelect,
  onChange,
  onPin,
  onRemove,
}: Props) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: item.drill });
  const { sets, amount, measure } = drill.dose;
  return (
    <tbody
      ref={setNodeRef}
      style={{ transform: CSS.Transform.toString(transform), transition }}
      className={classes.item}
      data-selected={selected || undefined}
      data-caution={caution || undefined}
      onFocusCapture={onSelect}
      onClick={onSelect}
    >
      <tr>
        <td rowSpan={2}>
          <button
            type="button"
            className={classes.handle}
            aria-label={`Move ${drill.name}`}
            {...attributes}
            {...listeners}
          >
            <IconGripVertical size={17} />
          </button>
        </td>
        <th scope="row">
          <button type="button" className={classes.itemName} onClick={onSelect}>
            {index + 1}. {drill.name}
          </button>
        </th>
        <td>
          <SideSelect item={item} drill={drill} onChange={onChange} />
        </td>
        <td className={classes.dose}>
          <Stepper
            label={`Sets of ${drill.name}`}
            value={item.sets}
            min={1}
            max={Math.max(sets.max, 6)}
            step={1}
            onChange={(v) => onChange({ sets: v })}
          />{' '}
          ×{' '}
          <Stepper
            label={`Amount of ${drill.name}`}
            value={item.amount}
            min={1}
            max={Math.max(amount.max * 2, 10)}
            step={STEP[measure]}
            onChange={(v) => onChange({ amount: v })}
          />
          <span className={classes.unit}>{UNIT[measure]}</span>
        </td>
        <td className={classes.dose}>
          <Stepper
            label={`Rest of ${drill.name}`}
            value={item.restSeconds}
            min={0}
            max={300}
            step={5}
            onChange={(v) => onChange({ restSeconds: v })}
          />
          <span className={classes.unit}>s</span>
        </td>
        <td className={classes.seconds}>{duration(itemSeconds(drill, item))}</td>
        <td className={classes.rowTools} rowSpan={2}>
          <ActionIcon
            variant="subtle"
            color="gray"
            aria-pressed={pinned}
            aria-label={`Pin ${drill.name}`}
            onClick={onPin}
          >
            {pinned ? <IconPinFilled size={16} /> : <IconPin size={16} />}
          </ActionIcon>
          <ActionIcon variant="subtle" color="gray" aria-label={`Remove ${drill.name}`} onClick={onRemove}>
            <IconX size={16} />
          </ActionIcon>
        </td>
      </tr>
      <tr>
        <td colSpan={5} className={classes.sub}>
          <div>
            {CATEGORY_LABEL[drill.category]}
            <SetupSelects item={item} drill={drill} onChange={onChange} />
          </div>
        </td>
      </tr>
    </tbody>
  );
}
