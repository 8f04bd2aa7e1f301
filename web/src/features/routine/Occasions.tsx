import { Alert, Button, Chip, Group, Menu, Popover, Tabs, Text } from '@mantine/core';
import type { OccasionRow } from '@yonder/core/contracts';
import { OCCASIONS, WEEKDAYS } from '@yonder/core/domain';
import type { Occasion, Weekday } from '@yonder/core/domain';
import { OCCASION_LABEL, WEEKDAY_LABEL } from '@yonder/core/words';
import { useState } from 'react';
import { Allowed } from '../../app/Allowed.tsx';
import { useMay } from '../../app/may.ts';
import { Refusal } from '../../components/Refusal.tsx';
import { UnitInput } from '../../components/UnitInput.tsx';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import classes from './Occasions.module.css';
import { PrintHandout } from './PrintHandout.tsx';
import { useOccasionsQuery, usePutOccasionMutation } from './routineEndpoints.ts';

/** "Mon, Thu", "Mon, Thu, 2 × a day", "as often as its drills say". */
function frequencyText({ days, timesPerDay }: Pick<OccasionRow, 'days' | 'timesPerDay'>): string {
  if (days.length === 0) return 'as often as its drills say';
  const named = days.length === 7 ? 'every day' : days.map((day) => WEEKDAY_LABEL[day]).join(', ');
  return timesPerDay > 1 ? `${named}, ${timesPerDay} × a day` : named;
}

/** What is there of an occasion: "version 2", "draft, version 2 in force", "out of force", "none". */
function stateText({ routine, draft, endedOn }: OccasionRow): string {
  const issued = routine ? `version ${routine.number}` : '';
  if (draft) return issued ? `draft, ${issued} in force` : 'draft';
  return issued || (endedOn ? 'out of force' : 'none');
}

/** Is anything in force, being edited, or taken out of force for it? */
const isThere = ({ routine, draft, endedOn }: OccasionRow) =>
  routine !== null || draft !== null || endedOn !== null;

/** Days of the week and times a day, and taking the routine out of force. */
function Frequency({ row }: { row: OccasionRow }) {
  const { athlete } = useWorkspace();
  const [put, { isLoading, error }] = usePutOccasionMutation();
  const may = useMay();
  const { occasion, days, timesPerDay, version, routine, endedOn } = row;
  const out = endedOn !== null;
  const send = (change: { days?: Weekday[]; timesPerDay?: number; ended?: boolean }) =>
    void put({
      athleteId: athlete.id,
      occasion,
      body: { days, timesPerDay, ended: out, version, ...change },
    });
  if (!may('clinician')) return <Text size="sm">{frequencyText(row)}</Text>;
  return (
    <Popover width={300} position="bottom-end" withArrow trapFocus>
      <Popover.Target>
        <Button variant="subtle" size="compact-sm" aria-label={`How often: ${frequencyText(row)}`}>
          {frequencyText(row)}
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <Text size="sm" fw={650} mb={6}>
          {OCCASION_LABEL[occasion]}: days of the week
        </Text>
        <Chip.Group
          multiple
          value={days}
          onChange={(next) => send({ days: WEEKDAYS.filter((day) => next.includes(day)) })}
        >
          <Group gap={4}>
            {WEEKDAYS.map((day) => (
              <Chip key={day} value={day} size="xs" disabled={isLoading}>
                {WEEKDAY_LABEL[day]}
              </Chip>
            ))}
          </Group>
        </Chip.Group>
        <Group gap={8} mt={8}>
          <UnitInput
            size="xs"
            w={110}
            label="Times a day"
            unit="×"
            min={1}
            max={10}
            value={timesPerDay}
            onChange={(times) => times !== null && times >= 1 && send({ timesPerDay: Math.round(times) })}
          />
        </Group>
        {routine || out ? (
          <Button
            mt={10}
            size="xs"
            variant="default"
            fullWidth
            loading={isLoading}
            onClick={() => send({ ended: !out })}
          >
            {out ? 'Put its routine in force again' : `Take version ${routine?.number} out of force`}
          </Button>
        ) : null}
        <Refusal error={error} mt={8} />
      </Popover.Dropdown>
    </Popover>
  );
}

/** All occasions at once: a booklet to print, a calendar to take along. */
function Together() {
  const { athlete } = useWorkspace();
  const [refused, setRefused] = useState<string | null>(null);
  return (
    <Allowed least="assistant">
      <Group gap={6} className={classes.together}>
        <PrintHandout
          href={`/api/v1/athletes/${athlete.id}/booklet.pdf`}
          label="Booklet"
          onRefused={setRefused}
        />
        <PrintHandout
          href={`/api/v1/athletes/${athlete.id}/week.ics`}
          label="Calendar"
          saveAs="week.ics"
          onRefused={setRefused}
        />
      </Group>
      {refused ? (
        <Alert color="copper" role="alert" p={6} w="100%">
          {refused}
        </Alert>
      ) : null}
    </Allowed>
  );
}

interface Props {
  /** Choosing one that has nothing yet is offered too: a routine can be made for it here. */
  more: boolean;
}

/** The occasions of an athlete as tabs, each with what is in force; every one has its own versions, diary and decisions. */
export function Occasions({ more }: Props) {
  const { athlete, occasion, chooseOccasion } = useWorkspace();
  const { data } = useOccasionsQuery(athlete.id);
  if (!data) return null;
  const there = data.filter((row) => isThere(row) || row.occasion === occasion);
  const rest = OCCASIONS.filter((one) => !there.some((row) => row.occasion === one));
  const own = there.find((row) => row.occasion === occasion);
  return (
    <div className={classes.occasions}>
      <Tabs
        value={occasion}
        onChange={(next) => next && chooseOccasion(next as Occasion)}
        variant="default"
        className={classes.tabs}
      >
        <Tabs.List aria-label="Occasions">
          {there.map((row) => (
            <Tabs.Tab key={row.occasion} value={row.occasion} className={classes.tab}>
              <b>{OCCASION_LABEL[row.occasion]}</b>
              <span>{stateText(row)}</span>
            </Tabs.Tab>
          ))}
        </Tabs.List>
      </Tabs>
      {more && rest.length > 0 ? (
        <Allowed least="clinician">
          <Menu transitionProps={{ duration: 0 }} position="bottom-start">
            <Menu.Target>
              <Button variant="subtle" size="compact-sm">
                + Occasion
              </Button>
            </Menu.Target>
            <Menu.Dropdown>
              {rest.map((one) => (
                <Menu.Item key={one} onClick={() => chooseOccasion(one)}>
                  {OCCASION_LABEL[one]}
                </Menu.Item>
              ))}
            </Menu.Dropdown>
          </Menu>
        </Allowed>
      ) : null}
      {own && isThere(own) ? <Frequency row={own} /> : null}
      {there.some((row) => row.routine) ? <Together /> : null}
    </div>
  );
}
