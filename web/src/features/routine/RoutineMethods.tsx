import { Button, Popover, Select, Stack, Text } from '@mantine/core';
import type { BuildReport } from '@yonder/core/builder';
import type { BuildRequest } from '@yonder/core/domain';
import { schoolOption } from '@yonder/core/findings';
import { nameOf, optionLabel } from '@yonder/core/words';
import { useState } from 'react';
import { Link, useLocation } from 'react-router';
import { useReference } from '../../app/reference.tsx';
import { compute } from '../../workers/client.ts';
import type { Asked } from '../../workers/protocol.ts';
import classes from './Routine.module.css';

interface Props {
  /** The record and what is asked for. */
  asked: Asked;
  /** Other options. */
  onChange: (change: Partial<BuildRequest>) => void;
}

type Looked = 'asking' | 'failed' | { leave: string[]; come: string[] };

const drillsOf = (report: BuildReport) => (report.routine?.items ?? []).map(({ drill }) => drill);

/** Which drills a build with the options of this routine would bring and lose, against one without them. */
function Preview({ asked: { subject, request } }: Pick<Props, 'asked'>) {
  const reference = useReference();
  const [looked, setLooked] = useState<Looked | null>(null);
  const look = () => {
    setLooked('asking');
    const build = (schools: BuildRequest['schools']) =>
      compute.call('build', subject, { request: { ...request, schools } }).then(drillsOf);
    build({})
      .then((was) =>
        build(request.schools).then((will) =>
          setLooked({
            leave: was.filter((drill) => !will.includes(drill)),
            come: will.filter((drill) => !was.includes(drill)),
          }),
        ),
      )
      .catch(() => setLooked('failed'));
  };
  const names = (ids: readonly string[]) => ids.map((id) => nameOf(reference, id).toLowerCase()).join(', ');
  return (
    <>
      <Button size="compact-xs" variant="default" loading={looked === 'asking'} onClick={look}>
        Which drills would change?
      </Button>
      {looked === 'failed' ? <Text size="sm">It could not be worked out. Try again.</Text> : null}
      {looked !== null && typeof looked === 'object' ? (
        <Text size="sm" role="status">
          {looked.come.length + looked.leave.length === 0 ? 'None: the same drills either way.' : ''}
          {looked.come.length > 0 ? `In: ${names(looked.come)}. ` : ''}
          {looked.leave.length > 0 ? `Out: ${names(looked.leave)}.` : ''}
        </Text>
      ) : null}
    </>
  );
}

/** The methods of this one routine: what holds for the athlete, unless another way is chosen for it. */
export function RoutineMethods({ asked, onChange }: Props) {
  const reference = useReference();
  const { search } = useLocation();
  const { subject, request } = asked;
  const own = Object.keys(request.schools).length;
  const choose = (school: string, option: string | null) => {
    const { [school]: _was, ...rest } = request.schools;
    onChange({ schools: option === null ? rest : { ...rest, [school]: option } });
  };
  return (
    <Popover width={430} position="bottom" withArrow trapFocus>
      <Popover.Target>
        <Button variant="default" size="xs">
          Methods{own > 0 ? `: ${own}` : ''}
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <Stack gap={8} className={classes.methods}>
          <Text size="sm">
            For this routine alone.{' '}
            <Link to={{ pathname: '../methods', search }} relative="path">
              For the athlete
            </Link>
            , <Link to="/methods">for the practice</Link>.
          </Text>
          {reference.data.schools.map((school) => {
            const holds = schoolOption(reference, subject.case.schools, school.id);
            return (
              <Select
                key={school.id}
                size="xs"
                label={school.question}
                placeholder={`as for the athlete: ${optionLabel(reference, school.id, holds)}`}
                clearable
                comboboxProps={{ withinPortal: false }}
                data={school.options.map(({ id, label }) => ({ value: id, label }))}
                value={request.schools[school.id] ?? null}
                onChange={(option) => choose(school.id, option)}
              />
            );
          })}
          {own > 0 ? <Preview key={JSON.stringify(request.schools)} asked={asked} /> : null}
        </Stack>
      </Popover.Dropdown>
    </Popover>
  );
}
