import { Button, Group, MultiSelect, Progress, SegmentedControl, Select, Text } from '@mantine/core';
import type { AppliedTemplate, TemplateRow } from '@yonder/core/contracts';
import { OCCASIONS } from '@yonder/core/domain';
import type { Occasion } from '@yonder/core/domain';
import { OCCASION_LABEL } from '@yonder/core/words';
import { useEffect, useRef, useState } from 'react';
import { errorText } from '../../app/api.ts';
import type { ApiError } from '../../app/api.ts';
import { useAthletesQuery } from '../athletes/athleteEndpoints.ts';
import { useApplyTemplateMutation } from './templateEndpoints.ts';

type Outcome = { name: string; id: string; answer: AppliedTemplate | null; problem: string | null };

/** Uses a protocol for several athletes, one after the other: drafts to look at, nothing issued; it can be stopped at any time. */
export function ApplyToMany({ template }: { template: TemplateRow }) {
  const { data } = useAthletesQuery();
  const [apply] = useApplyTemplateMutation();
  const [chosen, setChosen] = useState<string[]>([]);
  const [occasion, setOccasion] = useState<Occasion>(template.occasion ?? 'before-training');
  const [how, setHow] = useState<'fitted' | 'word-by-word'>(
    template.variables.level === 'athlete' ? 'fitted' : 'word-by-word',
  );
  const [outcomes, setOutcomes] = useState<readonly Outcome[]>([]);
  const [running, setRunning] = useState(false);
  const stopped = useRef(false);
  useEffect(() => () => void (stopped.current = true), []); // nothing goes on once the list is closed
  const athletes = data?.items ?? [];
  const start = async () => {
    stopped.current = false;
    setRunning(true);
    setOutcomes([]);
    for (const id of chosen) {
      if (stopped.current) break;
      const name = athletes.find((one) => one.id === id)?.name ?? '';
      const outcome = await apply({ id: template.id, body: { athleteId: id, occasion, how } })
        .unwrap()
        .then(
          (answer): Outcome => ({ name, id, answer, problem: null }),
          (error: ApiError): Outcome => ({ name, id, answer: null, problem: errorText(error) }),
        );
      setOutcomes((now) => [...now, outcome]);
    }
    setRunning(false);
  };
  return (
    <div>
      <Group gap={8} mt={8} align="flex-end">
        <MultiSelect
          size="xs"
          style={{ flex: '1 1 260px' }}
          label="Athletes"
          searchable
          limit={50}
          data={athletes.map(({ id, name }) => ({ value: id, label: name }))}
          value={chosen}
          onChange={setChosen}
          disabled={running}
        />
        <Select
          size="xs"
          w={170}
          label="For"
          allowDeselect={false}
          data={OCCASIONS.map((one) => ({ value: one, label: OCCASION_LABEL[one] }))}
          value={occasion}
          onChange={(next) => next && setOccasion(next)}
        />
        <SegmentedControl
          size="xs"
          aria-label="How"
          data={[
            { value: 'fitted', label: 'fitted' },
            { value: 'word-by-word', label: 'word by word' },
          ]}
          value={how}
          onChange={(next) => setHow(next as typeof how)}
        />
        {running ? (
          <Button size="xs" variant="outline" onClick={() => (stopped.current = true)}>
            Stop
          </Button>
        ) : (
          <Button size="xs" disabled={chosen.length === 0} onClick={() => void start()}>
            Make {chosen.length === 1 ? 'a draft' : `${chosen.length} drafts`}
          </Button>
        )}
      </Group>
      {running || outcomes.length > 0 ? (
        <>
          <Progress
            mt={8}
            value={(outcomes.length / Math.max(1, chosen.length)) * 100}
            aria-label="Made so far"
          />
          <Text size="sm" role="status">
            {outcomes.length} of {chosen.length} done
          </Text>
          <ul style={{ margin: '4px 0', paddingLeft: 20, fontSize: 13.5 }}>
            {outcomes.map(({ id, name, answer, problem }) => (
              <li key={id}>
                <a href={`/athletes/${id}/routine?for=${occasion}`} target="_blank" rel="noreferrer">
                  {name}
                </a>
                :{' '}
                {problem ??
                  (answer?.stored
                    ? `a draft of ${answer.lines} lines${answer.changed.length > 0 ? `; otherwise: ${answer.changed.join(' ')}` : ', every line as it is written'}`
                    : answer?.lines
                      ? 'something is being edited there; it stays as it is'
                      : answer?.changed.join(' '))}
              </li>
            ))}
          </ul>
        </>
      ) : null}
    </div>
  );
}
