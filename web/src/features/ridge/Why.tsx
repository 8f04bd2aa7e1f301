import { coversRestriction } from '@yonder/core/reference';
import { Button, Text } from '@mantine/core';
import { useHotkeys } from '@mantine/hooks';
import { needConfidence } from '@yonder/core/findings';
import type { Finding } from '@yonder/core/findings';
import {
  figure,
  nameOf,
  number,
  percent,
  priorityText,
  reasonText,
  signedFigure,
  sourceText,
  withSide,
} from '@yonder/core/words';
import { Link, useLocation, useNavigate } from 'react-router';
import { Allowed } from '../../app/Allowed.tsx';
import { useReference } from '../../app/reference.tsx';
import { dueText, shortDay } from '../../app/today.ts';
import { WhyPanel } from '../../components/WhyPanel.tsx';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { OwnNeed } from './OwnNeed.tsx';
import classes from './Ridge.module.css';
import { SayOfFinding } from './SayOfFinding.tsx';

type Figure = [string, string];
/** Beside the other side both errors count. */
const SD_OF: Readonly<Record<string, string>> = { symmetry: 'SD of both sides' };

/** The figures behind a finding: its worst evidence, the other side, the change and when to rescreen. */
function useFigures(finding: Finding | null): Figure[] {
  const reference = useReference();
  const { report, on } = useWorkspace();
  const row = finding?.evidence[0];
  const test = reference.tests.get(row?.test ?? '');
  if (!finding) return [];
  const factors: [string, string] = ['Priority', priorityText(finding)];
  if (!row || !test) return [['Severity', number(finding.severity, 2)], factors];
  const other = report.capacities.find(
    (c) => c.test === row.test && c.side !== row.side && c.side !== 'central',
  );
  const capacity = report.capacities.find((c) => c.test === row.test && c.side === row.side);
  const reading = capacity && figure(capacity.value, test.unit);
  const change = report.changes.find((c) => c.test === row.test && c.side === row.side);
  const figures: Figure[] = [
    ['Has', figure(row.estimate, test.unit)],
    ...(reading === undefined || reading === figure(row.estimate, test.unit)
      ? []
      : [['Latest reading', reading] as Figure]),
    ...(row.sd === null ? [] : [[SD_OF[row.needSource.kind] ?? 'SD', figure(row.sd, test.unit)] as Figure]),
    ['Needs', figure(row.need, test.unit)],
    ['Asked by', sourceText(reference, row.needSource)],
    ['Reserve', signedFigure(row.reserve, test.unit)],
    ['Margin', number(row.margin, 2)],
    ['Short with', percent(row.pShort)],
  ];
  if (other) figures.push([`Other side`, figure(other.estimate, test.unit)]);
  if (change)
    figures.push([`Since ${shortDay(change.fromDate)}`, signedFigure(change.difference, test.unit)]);
  const rescreen = report.rescreen.find((r) => r.test === row.test && r.side === row.side);
  if (rescreen) figures.push(['Rescreen', dueText(rescreen.due, on)]);
  figures.push(factors);
  return figures;
}

/** How far the need can be relied on, as a sentence. */
const reliedText = (confidence: ReturnType<typeof needConfidence> | undefined) =>
  confidence === null ? 'Need set by hand.' : `Need: ${confidence ?? 'low'} confidence.`;

/** Up or down the chain, in words. */
const DIRECTION = { up: 'above', down: 'below', same: 'same area' } as const;

/** Why a restriction is ranked where it is, what the practitioner says of it, and the way to its drills. */
export function Why({ finding, onKeep }: { finding: Finding | null; onKeep: () => void }) {
  const reference = useReference();
  const { report } = useWorkspace();
  const navigate = useNavigate();
  const location = useLocation();
  const figures = useFigures(finding);
  const toRoutine = () => navigate({ pathname: '../routine', search: location.search }, { relative: 'path' });
  useHotkeys([['B', () => void toRoutine()]]);
  if (!finding) {
    return (
      <WhyPanel title="Nothing to explain yet">
        <Text size="sm">Screen a region first; what is short appears here with its reasons.</Text>
      </WhyPanel>
    );
  }
  const row = finding.evidence[0];
  const test = reference.tests.get(row?.test ?? '');
  const asymmetry = report.asymmetries.find((a) => a.test === row?.test && a.state === 'possible-repeat');
  const drills = reference.data.drills.filter((d) => coversRestriction(d, finding.restriction)).length;
  const neighbours = reference.restrictions.get(finding.restriction)?.neighbours ?? [];
  const others = [...new Set(finding.evidence.slice(1).map((e) => e.test))].filter((id) => id !== row?.test);
  return (
    <WhyPanel
      title={withSide(nameOf(reference, finding.restriction), finding.side)}
      figures={figures}
      action={
        <>
          <Button
            fullWidth
            onClick={() => void toRoutine()}
            rightSection={<kbd className={classes.key}>B</kbd>}
          >
            Build routine
          </Button>
          <Text size="xs" c="var(--muted)" mt={6}>
            {drills} drills serve this; those that fit kit, minutes and precautions are chosen.
          </Text>
        </>
      }
      reasons={[
        ...finding.reasons.map((reason) => reasonText(reference, reason)),
        ...(others.length > 0
          ? [`Also informed by: ${others.map((id) => nameOf(reference, id).toLowerCase()).join(', ')}.`]
          : []),
        ...(asymmetry ? ['The sides differ beyond their limit but inside the error: possible, repeat.'] : []),
        ...neighbours
          .slice(0, 2)
          .map(
            (n) =>
              `Look also at (${DIRECTION[n.direction]}): ${nameOf(reference, n.restriction).toLowerCase()}. ${n.why}`,
          ),
      ]}
    >
      {test ? (
        <Text size="xs" c="var(--muted)" mb={6}>
          {reliedText(row && needConfidence(reference, row))} Error of the test: {test.confidenceBy.error}{' '}
          confidence. Recalled and unverified. <Link to={`/figures?test=${test.id}`}>Edit its figures</Link>
        </Text>
      ) : null}
      <Allowed least="clinician">
        <SayOfFinding key={`${finding.restriction}/${finding.side}`} finding={finding} onSay={onKeep} />
      </Allowed>
      {test && row ? (
        <Allowed least="clinician">
          <OwnNeed
            key={`${test.id}/${row.side}`}
            test={test}
            side={row.side}
            need={row.need}
            onSay={onKeep}
          />
        </Allowed>
      ) : null}
    </WhyPanel>
  );
}
