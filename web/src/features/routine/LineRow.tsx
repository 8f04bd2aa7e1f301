import { ActionIcon } from '@mantine/core';
import { IconCopy, IconStretching, IconX } from '@tabler/icons-react';
import type { RoutineItem } from '@yonder/core/domain';
import { PAUSE } from '@yonder/core/reference';
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

/** The fields of a line that is no drill. */
export function LineFields({ item, index, change, onChange, onDouble, onRemove }: Props) {
  const rest = item.drill === PAUSE;
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
        </div>
      </td>
      <td className={classes.lineTime}>
        <Stepper
          label={`Seconds of ${name}`}
          value={item.amount}
          min={rest ? 5 : 0}
          max={1000}
          step={15}
          onChange={(amount) => onChange({ amount })}
        />{' '}
        s
      </td>
      <td>
        {rest ? null : (
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
        {item.amount > 0 ? duration(item.amount) : 'no time'}
        {change > 0 ? <span title="changing over to it">+ {change} s</span> : null}
      </td>
      <td className={classes.lineTools}>
        {rest ? null : (
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
