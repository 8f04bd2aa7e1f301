import { Button, Group, Menu, Text } from '@mantine/core';
import type { RoutineRow } from '@yonder/core/contracts';
import { OCCASIONS } from '@yonder/core/domain';
import type { BuildRequest } from '@yonder/core/domain';
import { nameOf, OCCASION_LABEL, withSide } from '@yonder/core/words';
import { Fragment } from 'react';
import { Allowed } from '../../app/Allowed.tsx';
import { useReference } from '../../app/reference.tsx';
import { WhyPanel } from '../../components/WhyPanel.tsx';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { Checks } from './Checks.tsx';
import { Compare } from './Compare.tsx';
import { Derive } from './Derive.tsx';
import classes from './Routine.module.css';
import { useRoutinesQuery } from './routineEndpoints.ts';
import { TemplatePicker } from './Templates.tsx';
import type { useRefit } from './useRefit.ts';
import { IssuedVersion } from './Versions.tsx';

interface IssuedProps {
  /** What a build that came to nothing said. */
  notes: string[];
  /** Newest first; undefined while they load. */
  routines: readonly RoutineRow[] | undefined;
  /** Fits templates and derived versions. */
  refit: ReturnType<typeof useRefit>;
  /** What is asked for. */
  request: BuildRequest;
  /** A version is to be edited as the next one. */
  onCopy: (routine: RoutineRow) => void;
  /** An empty list is begun. */
  onCompose: () => void;
  /** A written list is taken over. */
  onTakeOver: () => void;
}

/** Versions in force for other occasions, to begin this one from. */
function FromOther({ onCopy }: Pick<IssuedProps, 'onCopy'>) {
  const { athlete, occasion } = useWorkspace();
  const { data } = useRoutinesQuery(athlete.id);
  const others = OCCASIONS.flatMap((one) => {
    const newest = one === occasion ? undefined : data?.find((routine) => routine.occasion === one);
    return newest ? [newest] : [];
  });
  if (others.length === 0) return null;
  return (
    <Menu position="bottom-start">
      <Menu.Target>
        <Button variant="default" size="xs" h={34}>
          From another occasion…
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        {others.map((routine) => (
          <Menu.Item key={routine.id} onClick={() => onCopy(routine)}>
            {OCCASION_LABEL[routine.occasion]}, version {routine.number}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}

/** While nothing is edited: the issued versions, and the ways to start from something. */
export function Issued({ notes, routines, refit, request, onCopy, onCompose, onTakeOver }: IssuedProps) {
  const { routineId } = useWorkspace();
  const newest = routines?.[0];
  return (
    <>
      {notes.length > 0 ? (
        <Checks draft={null} checks={[]} notes={notes} onRepair={() => undefined} onShow={() => undefined} />
      ) : null}
      <Allowed least="clinician">
        <Group gap="xs">
          <Button variant="default" size="xs" h={34} onClick={onCompose}>
            Compose by hand
          </Button>
          <Button variant="default" size="xs" h={34} onClick={onTakeOver}>
            Take over a list…
          </Button>
          <TemplatePicker onUse={refit.useTemplate} onWords={refit.useWords} />
          <FromOther onCopy={onCopy} />
          {newest ? (
            <Derive
              busy={refit.busy}
              onDerive={(variant) => refit.derive(variant, { ...request, mode: newest.mode }, newest.items)}
            />
          ) : null}
        </Group>
      </Allowed>
      {newest ? (
        routines.map((routine) => (
          <Fragment key={routine.id}>
            <IssuedVersion
              routine={routine}
              inForce={routine.id === routineId}
              onCopy={() => onCopy(routine)}
            />
            {routine === newest ? <Compare routines={routines} /> : null}
          </Fragment>
        ))
      ) : (
        <Text className={`card ${classes.empty}`}>
          No routine yet. Set the minutes and the kit, then let drills be chosen: for what is short, in the
          minutes there are, and each says why it is in.
        </Text>
      )}
    </>
  );
}

/** Beside the versions: what a routine built now would answer. */
export function ToAnswer({ onBuild }: { onBuild: () => void }) {
  const reference = useReference();
  const { report } = useWorkspace();
  return (
    <WhyPanel
      title="What the routine will answer"
      reasons={report.findings
        .filter((f) => f.severity > 0)
        .slice(0, 6)
        .map(
          (f) => `${withSide(nameOf(reference, f.restriction), f.side)}: priority ${f.priority.toFixed(2)}`,
        )}
    >
      {report.capacities.length === 0 ? (
        <Text size="sm">Nothing screened: the routine will be general, from tasks and injuries.</Text>
      ) : null}
      <Allowed least="clinician">
        <Button size="xs" fullWidth mt={8} onClick={onBuild}>
          Choose drills for these
        </Button>
      </Allowed>
    </WhyPanel>
  );
}
