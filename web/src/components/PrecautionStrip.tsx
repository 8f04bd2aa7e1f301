import { Tooltip } from '@mantine/core';
import { IconAlertTriangle, IconBandage, IconHandStop } from '@tabler/icons-react';
import type { Case } from '@yonder/core/domain';
import { activePrecautions } from '@yonder/core/safety';
import type { Block, DayRule } from '@yonder/core/safety';
import { boundText, dayRuleText, nameOf } from '@yonder/core/words';
import type { ReactNode } from 'react';
import { useReference } from '../app/reference.tsx';
import { shortDay } from '../app/today.ts';
import classes from './PrecautionStrip.module.css';

interface Props {
  /** Whose precautions, protocols and stop signs. */
  athlete: Case['athlete'];
  /** Working date. */
  on: string;
  /** Regions that an open stop-and-refer sign blocks. */
  blocked: readonly Block[];
  /** What holds today because it hurts. */
  dayRules: readonly DayRule[];
  /** What can be done about a rule of the day, beside its sentence. */
  tools?: (rule: DayRule) => ReactNode;
}

/** Always in sight: open stop-and-refer signs first, then what hurts today, then every precaution that binds. */
export function PrecautionStrip({ athlete, on, blocked, dayRules, tools }: Props) {
  const reference = useReference();
  const active = activePrecautions(athlete, on);
  const signs = [...new Map(blocked.map((block) => [block.redFlag, block])).values()];
  if (signs.length + active.length + dayRules.length === 0) return null;
  return (
    <ul className={classes.strip} aria-label="Precautions and stop signs">
      {signs.map((block) => (
        <li key={block.redFlag} className={classes.stop}>
          <IconHandStop size={16} aria-hidden="true" />
          <span>
            <b>Stop and refer: {block.region === 'all' ? 'everything' : nameOf(reference, block.region)}</b>{' '}
            {block.action}
          </span>
        </li>
      ))}
      {dayRules.map((rule) => (
        <li
          key={`${rule.region}/${rule.side}`}
          className={rule.band === 'above' ? classes.stop : classes.precaution}
          data-band={rule.band}
        >
          <IconBandage size={16} aria-hidden="true" />
          <span>{dayRuleText(reference, rule)}</span>
          {tools?.(rule)}
        </li>
      ))}
      {active.map((precaution) => (
        <Tooltip
          key={`${precaution.id}/${precaution.region}/${precaution.side}`}
          multiline
          w={300}
          label={reference.precautions.get(precaution.id)?.handling ?? ''}
        >
          <li className={classes.precaution} data-due={precaution.reviewDue || undefined} tabIndex={0}>
            <IconAlertTriangle size={16} aria-hidden="true" />
            <span>
              <b>{nameOf(reference, precaution.id)}</b>
              {boundText(precaution)}
              {precaution.cleared ? ', cleared' : ''}
              {precaution.until
                ? precaution.reviewDue
                  ? `, review was due ${shortDay(precaution.until)}, still binds`
                  : ` until reviewed ${shortDay(precaution.until)}`
                : ''}
              {precaution.setBy ? `, set by ${precaution.setBy}` : ''}
            </span>
          </li>
        </Tooltip>
      ))}
    </ul>
  );
}
