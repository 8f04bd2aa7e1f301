import { ActionIcon } from '@mantine/core';
import { IconCopy, IconStretching, IconX } from '@tabler/icons-react';
import type { RoutineItem } from '@yonder/core/domain';
import { itemSeconds } from '@yonder/core/dose';
import { lineOf, ownWordsId, PAUSE } from '@yonder/core/reference';
import type { OwnMeasure } from '@yonder/core/reference';
import { duration } from '@yonder/core/words';
import { Link } from 'react-router';
import { WordsInput } from '../../components/WordsInput.tsx';
import classes from './Compose.module.css';
import { Stepper } from './Stepper.tsx';

interface Props {
  /** A rest, or a part in own words. */
  item: RoutineItem;
  /** Its place, from 0. */
  index: number;
  /** Seconds of changing over to it. */
  change: number;
  /** Other words, another time, somebody who leads it. */
  onChange: (change: Partial<RoutineItem>) => void;
  /** Once more, below it. */
  onDouble: () => void;
  /** Take it out. */
  onRemove: () => void;
}

const UNITS: Readonly<Record<OwnMeasure, string>> = { seconds: 's', reps: 'reps', metres: 'm' };
const SIDES = { whole: 'no side', both: 'each side', left: 'left', right: 'right' } as const;

/** What own words are dosed in and on which side; each change makes them another line of the same words. */
function OwnDose({ item, name, onChange }: Pick<Props, 'item' | 'onChange'> & { name: string }) {
  const measure: OwnMeasure = item.measure === 'reps' || item.measure === 'metres' ? item.measure : 'seconds';
  const sided = item.drill === ownWordsId(measure, true);
  const as = (next: OwnMeasure, sides: boolean, side: RoutineItem['side']) =>
    onChange({ drill: ownWordsId(next, sides), measure: next, side, perSide: undefined });
  return (
    <>
      <select
        className={classes.unit}
        aria-label={`What ${name} is counted in`}
        value={measure}
        onChange={({ currentTarget }) => as(currentTarget.value as OwnMeasure, sided, item.side)}
      >
        {Object.entries(UNITS).map(([value, label]) => (
          <option key={value} value={value}>
            {label}
          </option>
        ))}
      </select>{' '}
      <select
        className={classes.unit}
        aria-label={`Side of ${name}`}
        value={sided ? item.side : 'whole'}
        onChange={({ currentTarget: { value } }) =>
          value === 'whole' ? as(measure, false, 'both') : as(measure, true, value as RoutineItem['side'])
        }
      >
        {Object.entries(SIDES).map(([value, label]) => (
          <option key={value} value={value}>
            {label}
          </option>
        ))}
      </select>
    </>
  );
}

/** The fields of a line that is no drill. */
export function LineFields({ item, index, change, onChange, onDouble, onRemove }: Props) {
  const rest = item.drill === PAUSE;
  const drill = lineOf(item.drill);
  const seconds = drill ? itemSeconds(drill, item) : item.amount;
  const name = rest ? `rest ${index + 1}` : `line ${index + 1}`;
  return (
    <>
      <td colSpan={2} className={classes.lineWords}>
        <div>
          <span className={classes.lineNumber}>
            {index + 1}. {rest ? 'Rest' : ''}
          </span>
          <WordsInput
            label={rest ? `What ${name} is for` : `Words of ${name}`}
            placeholder={rest ? 'water, shoes on…' : ''}
            most={300}
            needed={!rest}
            grows={!rest}
            value={item.words}
            onSay={(words) => onChange({ words })}
          />
          {item.note === undefined ? null : (
            <WordsInput
              label={`Note of ${name}`}
              most={500}
              value={item.note}
              onSay={(note) => onChange({ note })}
            />
          )}
        </div>
      </td>
      <td className={classes.lineTime}>
        {rest || item.caution ? null : (
          <>
            <Stepper
              label={`Sets of ${name}`}
              value={item.sets}
              min={1}
              max={20}
              step={1}
              onChange={(sets) => onChange({ sets })}
            />
            {' × '}
          </>
        )}
        {item.caution ? null : (
          <>
            <Stepper
              label={`${item.measure === 'seconds' ? 'Seconds' : 'Amount'} of ${name}`}
              value={item.amount}
              min={rest ? 5 : 0}
              max={1000}
              step={item.measure === 'seconds' ? 15 : 1}
              onChange={(amount) => onChange({ amount })}
            />{' '}
            {rest ? 's' : <OwnDose item={item} name={name} onChange={onChange} />}
          </>
        )}
      </td>
      <td className={classes.lineTime}>
        {item.sets > 1 ? (
          <>
            <Stepper
              label={`Rest of ${name}, in seconds`}
              value={item.restSeconds}
              min={0}
              max={600}
              step={15}
              onChange={(restSeconds) => onChange({ restSeconds })}
            />{' '}
            s
          </>
        ) : null}
        {rest || item.caution || item.sets > 1 ? null : (
          <WordsInput
            label={`Who leads ${name}`}
            placeholder="led by"
            w={86}
            most={80}
            value={item.ledBy}
            onSay={(ledBy) => onChange({ ledBy })}
          />
        )}
      </td>
      <td className={classes.lineSeconds}>
        {item.amount > 0
          ? `${item.measure === 'seconds' ? '' : '≈ '}${duration(seconds)}`
          : item.caution
            ? 'caution'
            : 'no time'}
        {change > 0 ? <span title="changing over to it">+ {change} s</span> : null}
      </td>
      <td className={classes.lineTools}>
        {rest || item.caution ? null : (
          <ActionIcon
            component={Link}
            to={`/library/new?${new URLSearchParams({ named: item.words ?? '' }).toString()}`}
            variant="subtle"
            color="gray"
            aria-label={`Make a drill of ${name}`}
            title="Make it a drill of your own"
          >
            <IconStretching size={15} />
          </ActionIcon>
        )}
        <ActionIcon variant="subtle" color="gray" aria-label={`Duplicate ${name}`} onClick={onDouble}>
          <IconCopy size={15} />
        </ActionIcon>
        <ActionIcon variant="subtle" color="gray" aria-label={`Remove ${name}`} onClick={onRemove}>
          <IconX size={16} />
        </ActionIcon>
      </td>
    </>
  );
}
