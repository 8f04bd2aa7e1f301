import { COVER_MATCH, kitText } from '@yonder/core/reference';
import { Alert, Button, Group, Text, Title } from '@mantine/core';
import type { OwnDrillRow } from '@yonder/core/contracts';
import type { Drill } from '@yonder/core/reference';
import { kindText, duration, nameOf, percent, REGION_LABEL } from '@yonder/core/words';
import { Link } from 'react-router';
import { Allowed } from '../../app/Allowed.tsx';
import { Refusal } from '../../components/Refusal.tsx';
import { useReference } from '../../app/reference.tsx';
import { dayText } from '../../app/today.ts';
import { DrillPicture } from '../picture/DrillPicture.tsx';
import { LadderView } from './LadderView.tsx';
import classes from './Library.module.css';
import { useSaveDrillMutation } from './libraryEndpoints.ts';

const MEASURE = {
  reps: 'reps',
  'hold-seconds': 's held',
  seconds: 's',
  metres: 'm',
  contacts: 'contacts',
} as const;

function Facts({ drill }: { drill: Drill }) {
  const reference = useReference();
  const { sets, amount, measure, restSeconds, holdSeconds, tempo } = drill.dose;
  const side = drill.unilateral ? ', each side' : drill.alternating ? ', alternating' : '';
  const rows: [string, string][] = [
    ['For', drill.regions.primary.map((r) => REGION_LABEL[r]).join(', ')],
    ['Kind', `${kindText(reference, drill)}, ${drill.contraction.replaceAll('-', ' ')}`],
    ['Position', drill.position.replaceAll('-', ' ')],
    ['Kit', kitText(drill) || 'none'],
    [
      'Dose',
      `${sets.default} × ${amount.default} ${MEASURE[measure]}${side} (${sets.min}–${sets.max} × ${amount.min}–${amount.max})`,
    ],
    [
      'Rest',
      `${restSeconds.default} s${holdSeconds ? `, hold ${holdSeconds} s` : ''}${tempo ? `, tempo ${tempo}` : ''}`,
    ],
    ['Takes', duration(drill.estimatedSeconds.default)],
    ['Effort', drill.dose.intensity],
    ['Load', `${drill.loadClass}, ${drill.intensityClass}; fatigue ${drill.fatigue}, skill ${drill.skill}`],
  ];
  return (
    <dl className={classes.facts}>
      {rows.map(([label, value]) => (
        <div key={label}>
          <dt>{label}</dt>
          <dd>{value}</dd>
        </div>
      ))}
    </dl>
  );
}

function Archive({ row }: { row: OwnDrillRow }) {
  const [save, { isLoading, error }] = useSaveDrillMutation();
  const { archived } = row.drill;
  const toggle = () =>
    void save({
      rowId: row.rowId,
      body: { drill: { ...row.drill, archived: !archived }, version: row.version },
    });
  return (
    <>
      <Button size="xs" variant="subtle" color="gray" loading={isLoading} onClick={toggle}>
        {archived ? 'Bring back' : 'Archive'}
      </Button>
      <Refusal error={error} />
    </>
  );
}

interface Props {
  /** The drill shown. */
  drill: Drill;
  /** The stored row when the drill is the practice's own. */
  row: OwnDrillRow | undefined;
  /** Another drill of the ladder, or an equivalent, was pressed. */
  onPick: (id: string) => void;
}

/** Everything of a drill: what it serves, its dose, what stops it, its set-up steps, and its ladder. */
export function DrillDetail({ drill, row, onPick }: Props) {
  const reference = useReference();
  return (
    <article className={`card ${classes.detail}`} aria-label={drill.name}>
      <Group justify="space-between" align="flex-start" wrap="nowrap">
        <Title order={2} size={22}>
          {drill.name}
        </Title>
        <Allowed least="clinician">
          <Group gap={6} wrap="nowrap">
            {row ? (
              <Button component={Link} to={`/library/own/${row.rowId}`} size="xs" variant="light">
                Edit
              </Button>
            ) : null}
            <Button component={Link} to={`/library/new?copy=${drill.id}`} size="xs" variant="light">
              Copy as own
            </Button>
            {row ? <Archive row={row} /> : null}
          </Group>
        </Allowed>
      </Group>
      {row ? (
        <Text size="sm" c="var(--muted)">
          The practice’s own{row.drill.archived ? ', archived' : ''}; saved by {row.savedBy},{' '}
          {dayText(row.savedOn)}
        </Text>
      ) : null}
      {drill.looser ? (
        <Alert color="copper" p={8} mt={4}>
          Looser than {nameOf(reference, drill.looser.than).toLowerCase()}, which it comes from:{' '}
          {drill.looser.reason} ({drill.looser.by}, {dayText(drill.looser.date)})
        </Alert>
      ) : null}
      <div className={classes.shown}>
        <DrillPicture drill={drill} />
        <div>
          <Text size="lg">{drill.athleteText}</Text>
          <dl className={classes.told}>
            <dt>Cues</dt>
            <dd>{drill.cues.join('; ')}.</dd>
            <dt>Faults</dt>
            <dd>{drill.faults.join('; ') || 'None listed'}.</dd>
            <dt>Feel it</dt>
            <dd>{drill.feelsLike}.</dd>
          </dl>
        </div>
      </div>
      <div className={classes.columns}>
        <div>
          <Facts drill={drill} />
          <h3>Serves</h3>
          <ul className={classes.serves}>
            {[...drill.serves]
              .sort((a, b) => b.match - a.match)
              .map(({ restriction, match }) => (
                <li key={restriction} data-weak={match < COVER_MATCH || undefined}>
                  <span className={classes.bar} style={{ width: percent(match).replace(' ', '') }} />
                  <span>{nameOf(reference, restriction)}</span>
                  <span>{match}</span>
                </li>
              ))}
          </ul>
          {drill.contraindications.length > 0 ? (
            <>
              <h3>Stops or changes with</h3>
              <Text size="sm">
                {drill.contraindications.map((id) => nameOf(reference, id).toLowerCase()).join('; ')}.
              </Text>
            </>
          ) : null}
        </div>
        <div>
          <LadderView drill={drill} onPick={onPick} />
          {drill.setupVariables.length > 0 ? (
            <>
              <h3>Set-up, easier to harder</h3>
              <ul className={classes.setup}>
                {drill.setupVariables.map((variable) => (
                  <li key={variable.id}>
                    <b>{variable.name}</b>{' '}
                    {variable.steps.map((step) => (
                      <span key={step} data-usual={step === variable.default || undefined}>
                        {step}
                      </span>
                    ))}
                    {variable.unit ? ` ${variable.unit}` : ''}{' '}
                    <span className="muted">harder: {variable.harder}</span>
                  </li>
                ))}
              </ul>
            </>
          ) : null}
          {drill.entryCriteria.length > 0 ? (
            <>
              <h3>Opens when</h3>
              <ul className={classes.criteria}>
                {drill.entryCriteria.map((criterion) => (
                  <li key={criterion.text}>{criterion.text}</li>
                ))}
              </ul>
            </>
          ) : null}
        </div>
      </div>
    </article>
  );
}
