import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { ActionIcon } from '@mantine/core';
import { IconCopy, IconGripVertical, IconPin, IconPinFilled, IconX } from '@tabler/icons-react';
import type { Draft } from '@yonder/core/contracts';
import type { RoutineItem } from '@yonder/core/domain';
import type { FailureDistance } from '@yonder/core/dose';
import type { Drill } from '@yonder/core/reference';
import { kindText, duration, percent, setupText } from '@yonder/core/words';
import { useRef } from 'react';
import { DoseLine } from './DoseLine.tsx';
import { useReference } from '../../app/reference.tsx';
import { LevelSeen } from '../athletes/LevelSeen.tsx';
import { movesBy } from './movesBy.ts';
import { Thumb } from '../picture/Thumb.tsx';
import classes from './Routine.module.css';
import { Stepper } from './Stepper.tsx';

interface Props {
  /** The item of this row. */
  item: Draft['items'][number];
  /** Its place, from 0. */
  index: number;
  /** Its drill. */
  drill: Drill;
  /** The item after it, to do both in rounds; null for the last. */
  below: RoutineItem | null;
  /** Seconds with all rounds. */
  seconds: number;
  /** Seconds of changing over to it, in all its rounds. */
  change: number;
  /** How far its sets stay from failure; null when that is not known. */
  failure: FailureDistance | null;
  /** What it serves, in words; empty for a filler. */
  serves: string;
  /** True for the one explained beside the list. */
  selected: boolean;
  /** True when building again must keep it. */
  pinned: boolean;
  /** Something forbids it or asks for care today. */
  caution: boolean;
  /** Its starting level is by rule: somebody has to say that it is fine. */
  confirm: boolean;
  /** Its level was said to be too hard. */
  onTooHard: () => void;
  /** Its name was pressed. */
  onSelect: () => void;
  /** Another side, dose, rest or tempo. */
  onChange: (change: Partial<RoutineItem>) => void;
  /** Done in rounds with the one below; null ends that. */
  onCircuit: (rounds: number | null) => void;
  /** By itself on the clock: a start every minute. */
  onClock: () => void;
  /** Once more, below it. */
  onDouble: () => void;
  /** One place up or down. */
  onMove: (by: 1 | -1) => void;
  /** Pin it, or let it go. */
  onPin: () => void;
  /** Take it out. */
  onRemove: () => void;
}

const UNIT = { reps: 'reps', 'hold-seconds': 's', seconds: 's', metres: 'm', contacts: 'contacts' } as const;
const STEP = { reps: 1, 'hold-seconds': 5, seconds: 5, metres: 5, contacts: 1 } as const;

function SideSelect({ item, drill, onChange }: Pick<Props, 'item' | 'drill' | 'onChange'>) {
  if (!drill.unilateral) return <span className="muted">{drill.alternating ? 'alternating' : ''}</span>;
  return (
    <select
      className={classes.select}
      aria-label={`Side of ${drill.name}`}
      value={item.side}
      onChange={(e) => onChange({ side: e.currentTarget.value as RoutineItem['side'], perSide: undefined })}
    >
      <option value="left">◁ left</option>
      <option value="right">▷ right</option>
      <option value="both">◁▷ both</option>
    </select>
  );
}

/** "50 % of the maximum, 14 reps left"; what is known of how far a set stays from failure. */
function farText(failure: FailureDistance | null, unit: string): string {
  if (!failure || failure.share === null || failure.left === null) return '';
  return `${percent(failure.share)} of the tested maximum, ${Math.max(0, Math.round(failure.left))} ${unit} left`;
}

function Dose({ item, drill, onChange }: Pick<Props, 'item' | 'drill' | 'onChange'>) {
  const { sets, amount, measure } = drill.dose;
  if (item.perSide) return <span className="muted">each side its own</span>;
  if (item.circuit?.pace?.by === 'clock') return <span className="muted">by the clock</span>;
  return (
    <>
      <Stepper
        label={`Sets of ${drill.name}`}
        value={item.sets}
        min={1}
        max={Math.max(sets.max, 6)}
        step={1}
        onChange={(v) => onChange({ sets: v })}
      />{' '}
      ×{' '}
      {item.amountFrom !== undefined ? (
        <>
          <Stepper
            label={`Least of ${drill.name}`}
            value={item.amountFrom}
            min={1}
            max={Math.max(1, item.amount - 1)}
            step={STEP[measure]}
            onChange={(v) => onChange({ amountFrom: v })}
          />
          –
        </>
      ) : null}
      {item.asMany ? 'up to ' : ''}
      <Stepper
        label={`Amount of ${drill.name}`}
        value={item.amount}
        min={1}
        max={Math.max(amount.max * 2, 10)}
        step={STEP[measure]}
        onChange={(v) =>
          onChange({
            amount: v,
            ...(item.amountFrom !== undefined && item.amountFrom >= v ? { amountFrom: undefined } : {}),
          })
        }
      />
      <span className={classes.unit}>{UNIT[measure]}</span>
    </>
  );
}

/** Pins a drill, so that choosing again keeps it, puts it in once more, or takes it out. */
function RowTools({
  drill,
  pinned,
  onPin,
  onDouble,
  onRemove,
}: Pick<Props, 'drill' | 'pinned' | 'onPin' | 'onDouble' | 'onRemove'>) {
  return (
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
      <ActionIcon variant="subtle" color="gray" aria-label={`Duplicate ${drill.name}`} onClick={onDouble}>
        <IconCopy size={15} />
      </ActionIcon>
      <ActionIcon variant="subtle" color="gray" aria-label={`Remove ${drill.name}`} onClick={onRemove}>
        <IconX size={16} />
      </ActionIcon>
    </td>
  );
}

/** One drill of the routine: side, sets, amount, rest, exact seconds; drag it, or move it by Alt and the arrow keys. */
export function ItemRow(props: Props) {
  const reference = useReference();
  const { item, index, drill, selected, pinned, caution, onSelect, onChange, onMove } = props;
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: item.id });
  // Selecting a row lays the list out anew. While a pointer is down that would move its target away from under it, so
  // by pointer a row is selected when the click is over, by keyboard as soon as it has the focus.
  const pressed = useRef(false);
  const setup = setupText(drill, item);
  const notes = [
    kindText(reference, drill),
    props.serves,
    farText(props.failure, UNIT[drill.dose.measure]),
    selected ? '' : setup,
    selected ? '' : (item.note ?? ''),
  ];
  return (
    <tbody
      ref={setNodeRef}
      style={{ transform: CSS.Transform.toString(transform), transition }}
      className={classes.item}
      data-selected={selected || undefined}
      data-caution={caution || undefined}
      data-circuit={item.circuit?.id}
      onPointerDownCapture={() => (pressed.current = true)}
      onFocusCapture={() => {
        if (!pressed.current) onSelect();
      }}
      onClick={() => {
        pressed.current = false;
        onSelect();
      }}
      onKeyDownCapture={(event) => {
        const by = movesBy(event);
        if (by !== 0) onMove(by);
      }}
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
          <span className={classes.named}>
            <Thumb drill={drill} side={item.side} />
            <button type="button" className={classes.itemName} onClick={onSelect}>
              {index + 1}. {drill.name}
            </button>
          </span>
        </th>
        <td>
          <SideSelect item={item} drill={drill} onChange={onChange} />
        </td>
        <td className={classes.dose}>
          <Dose item={item} drill={drill} onChange={onChange} />
        </td>
        <td className={`${classes.dose} ${classes.restCell}`}>
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
        <td className={classes.seconds}>
          {duration(props.seconds)}
          {props.change > 0 ? (
            <span className={classes.rounds} title="changing over to it">
              + {props.change} s
            </span>
          ) : null}
        </td>
        <RowTools
          drill={drill}
          pinned={pinned}
          onPin={props.onPin}
          onDouble={props.onDouble}
          onRemove={props.onRemove}
        />
      </tr>
      <tr>
        <td colSpan={5} className={classes.sub}>
          <div>{notes.filter(Boolean).join(' · ')}</div>
          {props.confirm ? (
            <div className={classes.confirm}>
              <span>Starting level by rule:</span>
              <LevelSeen
                drill={drill}
                side={item.side}
                offers={['fine', 'too-hard']}
                onTooHard={props.onTooHard}
              />
            </div>
          ) : null}
          {selected ? (
            <DoseLine
              item={item}
              drill={drill}
              below={props.below}
              onChange={onChange}
              onCircuit={props.onCircuit}
              onClock={props.onClock}
            />
          ) : null}
        </td>
      </tr>
    </tbody>
  );
}
