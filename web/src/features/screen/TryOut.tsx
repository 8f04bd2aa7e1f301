import { Select, Text, Title } from '@mantine/core';
import { levelState } from '@yonder/core/levels';
import { kitText } from '@yonder/core/reference';
import type { Drill } from '@yonder/core/reference';
import { drillSafety } from '@yonder/core/safety';
import { useMemo, useState } from 'react';
import { useMay } from '../../app/may.ts';
import { useReference } from '../../app/reference.tsx';
import { LevelSeen } from '../athletes/LevelSeen.tsx';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { DrillPicture } from '../picture/DrillPicture.tsx';
import classes from './Screen.module.css';

/** How a level is tried: a short hold, or a few repetitions. */
function howTo({ dose, contraction }: Drill): string {
  if (dose.measure === 'hold-seconds' || contraction === 'isometric-hold') return 'Hold it for 20 s.';
  if (dose.measure === 'reps' || dose.measure === 'contacts') return 'Do five, one like the other.';
  return 'Do it for 20 s.';
}

/** A level tried in a visit: seen clean it is open from now on, seen as too hard it stays closed. */
export function TryOut() {
  const reference = useReference();
  const { region, assessment } = useWorkspace();
  const may = useMay();
  const [picked, setPicked] = useState<string | null>(null);
  const [side, setSide] = useState<'both' | 'left' | 'right'>('both');
  const { safety } = assessment;
  const drills = useMemo(
    () =>
      reference.data.drills.filter(
        (drill) =>
          drill.regions.primary.includes(region) &&
          !drill.archived &&
          drillSafety(reference, drill, safety).forbidden.length === 0,
      ),
    [reference, region, safety],
  );
  if (!may('clinician')) return null;
  const drill = drills.find(({ id }) => id === picked);
  const state = drill ? levelState(assessment, drill, drill.unilateral ? side : 'both') : null;
  return (
    <section aria-labelledby="try-out" className={`card ${classes.howto}`}>
      <Title order={3} size={16} id="try-out">
        Try a level
      </Title>
      <Select
        size="xs"
        label="Drill"
        searchable
        placeholder="which level?"
        data={drills.map(({ id, name }) => ({ value: id, label: name }))}
        value={picked}
        onChange={setPicked}
      />
      {drill?.unilateral ? (
        <Select
          size="xs"
          label="Side"
          allowDeselect={false}
          data={['both', 'left', 'right']}
          value={side}
          onChange={(next) => setSide((next ?? 'both') as 'both')}
        />
      ) : null}
      {drill ? (
        <>
          <DrillPicture drill={drill} side={side} />
          <Text size="sm" mt={6}>
            {howTo(drill)} {drill.athleteText} {kitText(drill) ? `Kit: ${kitText(drill)}.` : ''}
          </Text>
          <Text size="xs" c="var(--muted)">
            {state?.open ? 'Open today.' : `Closed today: ${state?.because ?? ''}.`} Stop at pain above{' '}
            {assessment.painLimits.fine}/10.
          </Text>
          <LevelSeen drill={drill} side={side} offers={['fine', 'too-hard']} />
        </>
      ) : null}
    </section>
  );
}
