import { Button, Progress, Text } from '@mantine/core';
import type { MethodEffect } from '@yonder/core/contracts';
import { duration, nameOf } from '@yonder/core/words';
import { Link } from 'react-router';
import { useReference } from '../../app/reference.tsx';
import type { Look } from '../../app/useLook.ts';
import classes from './Methods.module.css';

function Changed({ one }: { one: MethodEffect['changed'][0] }) {
  const reference = useReference();
  const names = (ids: readonly string[]) => ids.map((id) => nameOf(reference, id).toLowerCase()).join('; ');
  return (
    <li>
      <Link to={`/athletes/${one.athleteId}/routine`}>{one.name}</Link>
      <span>
        {one.come.length > 0 ? `In: ${names(one.come)}` : ''}
        {one.come.length > 0 && one.leave.length > 0 ? '. ' : ''}
        {one.leave.length > 0 ? `Out: ${names(one.leave)}` : ''}
        {one.come.length + one.leave.length === 0 ? 'the same drills, other doses' : ''}
      </span>
      <span className="numeric">
        {duration(one.secondsNow)} → {duration(one.secondsThen)}
      </span>
    </li>
  );
}

/** What a look at the effect of a method found, or how far it is. */
export function Effect({ look, onStop }: { look: Look<unknown, MethodEffect>; onStop: () => void }) {
  if (look.kind === 'idle') return null;
  if (look.kind === 'failed')
    return (
      <Text size="sm" role="alert" c="var(--danger)">
        {look.message}
      </Text>
    );
  const { judged, parts } = look;
  const changed = parts.flatMap((part) => part.changed);
  const routines = parts.reduce((sum, part) => sum + part.routines, 0);
  return (
    <div className={classes.effect}>
      {look.kind === 'looking' ? (
        <div className={classes.looking} role="status">
          <Progress
            value={look.total ? (100 * judged) / look.total : 3}
            aria-label="Athletes looked at"
            className={classes.progress}
          />
          <span>
            {judged}
            {look.total ? ` of ${look.total}` : ''} looked at
          </span>
          <Button size="compact-xs" variant="default" onClick={onStop}>
            Stop
          </Button>
        </div>
      ) : (
        <Text size="sm" role="status" fw={600}>
          {changed.length === 0
            ? `No routine in force would be built otherwise (${routines} of ${judged} athletes have one).`
            : `${changed.length} of ${routines} routines in force would be built otherwise.`}{' '}
          Versions in force stay as they are until the next is issued.
        </Text>
      )}
      {changed.length > 0 ? (
        <ul aria-label="Routines that would change">
          {changed.map((one) => (
            <Changed key={one.athleteId} one={one} />
          ))}
        </ul>
      ) : null}
    </div>
  );
}
