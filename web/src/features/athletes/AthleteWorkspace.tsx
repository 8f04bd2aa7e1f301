import { Alert, Loader } from '@mantine/core';
import { ageInYears, atOccasion, inForceOf, OCCASIONS, occasionOf, REGIONS } from '@yonder/core/domain';
import type { Occasion, Region } from '@yonder/core/domain';
import { assessCase, assessedAt } from '@yonder/core/assess';
import { useMemo } from 'react';
import { Outlet, useLocation, useParams, useSearchParams } from 'react-router';
import { errorText } from '../../app/api.ts';
import { useBundledReference } from '../../app/reference.tsx';
import { today } from '../../app/today.ts';
import { ChainRail } from '../../components/ChainRail.tsx';
import { DayInput } from '../../components/DayInput.tsx';
import { PrecautionStrip } from '../../components/PrecautionStrip.tsx';
import { Trail } from '../../components/Trail.tsx';
import classes from './AthleteWorkspace.module.css';
import { useAthleteCaseQuery, useAthleteQuery } from './athleteEndpoints.ts';
import { LiftRule } from './LiftRule.tsx';
import { WorkspaceContext } from './WorkspaceContext.tsx';
import type { Workspace } from './WorkspaceContext.tsx';

const JOINTS = REGIONS.filter((region) => region !== 'whole-body');

function isOccasion(value: string | null): value is Occasion {
  return OCCASIONS.some((occasion) => occasion === value);
}

function isRegion(value: string | null): value is Region {
  return JOINTS.some((region) => region === value);
}

/** Working date, region and occasion live in the address, so that a link shows the same thing again. */
function useWorkspacePlace() {
  const [search, setSearch] = useSearchParams();
  const region = search.get('region');
  const occasion = search.get('for');
  const on = search.get('on') ?? today();
  const set = (key: string, value: string) =>
    setSearch(
      (current) => {
        current.set(key, value);
        return current;
      },
      { replace: true },
    );
  return {
    on: /^\d{4}-\d{2}-\d{2}$/.test(on) ? on : today(),
    region: isRegion(region) ? region : ('ankle-foot' as const),
    occasion: isOccasion(occasion) ? occasion : null,
    chooseOccasion: (next: Occasion) => set('for', next),
    selectRegion: (next: Region) => set('region', next),
    selectDay: (day: string) => set('on', day),
  };
}

function Head({ workspace, selectDay }: { workspace: Workspace; selectDay: (day: string) => void }) {
  const { athlete, on, case: input } = workspace;
  const facts = [
    athlete.sport,
    `${ageInYears(athlete.birthDate, on)} years`,
    athlete.bodyMassKg === null ? '' : `${athlete.bodyMassKg} kg`,
    athlete.dominantLeg === null ? '' : `${athlete.dominantLeg}-legged`,
  ].filter(Boolean);
  return (
    <div className={classes.head}>
      <div className={classes.who}>
        <h1 className={classes.name}>{athlete.name}</h1>
        <span className={classes.facts}>{facts.join(' · ')}</span>
      </div>
      <PrecautionStrip
        athlete={input.athlete}
        on={on}
        blocked={workspace.report.blocked}
        dayRules={workspace.assessment.safety.dayRules}
        tools={(rule) => <LiftRule rule={rule} />}
      />
      <div className={classes.day} data-ahead={on > today() || undefined}>
        <DayInput
          label="Working date"
          size="xs"
          w={184}
          value={on}
          onChange={(day) => day && selectDay(day)}
        />
      </div>
    </div>
  );
}

/**
 * An athlete's workspace: facts, precautions, trail and chain rail around the step that is open. From one athlete to
 * another everything is begun anew: nothing that was shown or typed of the one is ever seen under the other's name.
 */
export function AthleteWorkspace() {
  const { athleteId = '' } = useParams();
  return <OneWorkspace key={athleteId} athleteId={athleteId} />;
}

function OneWorkspace({ athleteId }: { athleteId: string }) {
  const bundled = useBundledReference();
  const place = useWorkspacePlace();
  // A routine asks for the whole body at once, and for room.
  const wide = useLocation().pathname.endsWith('/routine');
  const athlete = useAthleteQuery(athleteId);
  const loaded = useAthleteCaseQuery({ athleteId, on: place.on });
  const record = loaded.data;
  const judged = useMemo(() => (record ? assessCase(bundled, record.case) : null), [bundled, record]);
  const atHand = useMemo(() => {
    if (!record || !judged) return null;
    const [first] = inForceOf(record.case);
    const occasion = place.occasion ?? (first ? occasionOf(first) : 'before-training');
    const own = atOccasion(record.case, occasion);
    return {
      occasion,
      case: own,
      assessment: assessedAt(judged, occasion),
      subject: { revision: `${record.revision}/${occasion}`, case: own },
      routineId: record.routineIds[occasion] ?? null,
    };
  }, [record, judged, place.occasion]);
  const error = athlete.error ?? loaded.error;
  // What is on the page stays there while the server cannot be reached: nothing typed goes with it.
  if (error && (!athlete.data || !record)) {
    return (
      <Alert m="xl" color="copper" role="alert" title="This athlete cannot be shown">
        {errorText(error)}
      </Alert>
    );
  }
  if (!athlete.data || !record || !atHand) return <Loader m="xl" aria-label="Loading" />;
  const workspace: Workspace = {
    athlete: athlete.data,
    ...atHand,
    report: atHand.assessment.report,
    chooseOccasion: place.chooseOccasion,
    on: place.on,
    region: place.region,
    selectRegion: place.selectRegion,
  };
  return (
    <WorkspaceContext value={workspace}>
      <div className={classes.workspace}>
        <Head workspace={workspace} selectDay={place.selectDay} />
        <Trail />
        <div className={classes.columns} data-wide={wide || undefined}>
          {wide ? null : (
            <ChainRail report={workspace.report} region={place.region} onSelect={place.selectRegion} />
          )}
          <div className={classes.step}>
            <Outlet />
          </div>
        </div>
      </div>
    </WorkspaceContext>
  );
}
