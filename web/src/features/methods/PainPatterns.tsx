import { ActionIcon, Button, Group, MultiSelect, Select, Switch, Table, Text, Title } from '@mantine/core';
import { IconPlus, IconTrash } from '@tabler/icons-react';
import { PAIN_ASPECTS, PAIN_FEELS, REGIONS } from '@yonder/core/domain';
import type { PainPattern } from '@yonder/core/domain';
import { nameOf, REGION_LABEL } from '@yonder/core/words';
import { useMay } from '../../app/may.ts';
import { useKeptState } from '../../app/kept/useKept.ts';
import { RestoredNote } from '../../app/kept/RestoredNote.tsx';
import { useBundledReference, useReference } from '../../app/reference.tsx';
import { Refusal } from '../../components/Refusal.tsx';
import { useMethodsQuery, useSetPainPatternsMutation } from './methodEndpoints.ts';
import classes from './Methods.module.css';

const NEW: PainPattern = { region: 'knee', aspects: null, feels: null, precautions: [], aboveOnly: false };
const words = (list: readonly string[] | null, any: string) =>
  list === null ? any : list.map((word) => word.replace('-', ' ')).join(', ');

function Shown({ patterns }: { patterns: readonly PainPattern[] }) {
  const reference = useReference();
  return (
    <Table.Tbody>
      {patterns.map((one, i) => (
        <Table.Tr key={i}>
          <Table.Td>{nameOf(reference, one.region)}</Table.Td>
          <Table.Td>{words(one.aspects, 'anywhere')}</Table.Td>
          <Table.Td>{words(one.feels, 'however')}</Table.Td>
          <Table.Td>{one.aboveOnly ? 'above the stop limit' : 'above fine'}</Table.Td>
          <Table.Td>{one.precautions.map((id) => nameOf(reference, id)).join('; ')}</Table.Td>
        </Table.Tr>
      ))}
    </Table.Tbody>
  );
}

function EditRow({
  one,
  place,
  onChange,
  onRemove,
}: {
  one: PainPattern;
  place: number;
  onChange: (change: Partial<PainPattern>) => void;
  onRemove: () => void;
}) {
  const reference = useReference();
  const row = `row ${place + 1}`;
  return (
    <Table.Tr>
      <Table.Td>
        <Select
          size="xs"
          aria-label={`Region, ${row}`}
          data={REGIONS.map((r) => ({ value: r, label: REGION_LABEL[r] }))}
          allowDeselect={false}
          value={one.region}
          onChange={(region) => onChange({ region: region as PainPattern['region'] })}
        />
      </Table.Td>
      <Table.Td>
        <MultiSelect
          size="xs"
          aria-label={`Where, ${row}`}
          placeholder={one.aspects ? '' : 'anywhere'}
          data={[...PAIN_ASPECTS]}
          value={one.aspects ?? []}
          onChange={(list) => onChange({ aspects: list.length > 0 ? (list as never) : null })}
        />
      </Table.Td>
      <Table.Td>
        <MultiSelect
          size="xs"
          aria-label={`Feels like, ${row}`}
          placeholder={one.feels ? '' : 'however'}
          data={PAIN_FEELS.map((f) => ({ value: f, label: f.replace('-', ' ') }))}
          value={one.feels ?? []}
          onChange={(list) => onChange({ feels: list.length > 0 ? (list as never) : null })}
        />
      </Table.Td>
      <Table.Td>
        <Switch
          size="xs"
          label="above stop"
          checked={one.aboveOnly}
          onChange={({ currentTarget: { checked } }) => onChange({ aboveOnly: checked })}
        />
      </Table.Td>
      <Table.Td>
        <Group gap={4} wrap="nowrap" align="flex-start">
          <MultiSelect
            size="xs"
            flex={1}
            searchable
            aria-label={`Precautions, ${row}`}
            placeholder={one.precautions.length > 0 ? '' : 'which hold?'}
            data={reference.data.precautions.map(({ id, name }) => ({ value: id, label: name }))}
            value={one.precautions}
            onChange={(precautions) => onChange({ precautions })}
          />
          <ActionIcon variant="subtle" aria-label={`Remove ${row}`} onClick={onRemove}>
            <IconTrash size={16} />
          </ActionIcon>
        </Group>
      </Table.Td>
    </Table.Tr>
  );
}

/** Which precautions hold on a day, by where it hurts and how it feels: shown, edited, and set back to what ships. */
export function PainPatterns() {
  const bundled = useBundledReference();
  const { data } = useMethodsQuery(null);
  const [save, { isLoading, error }] = useSetPainPatternsMutation();
  const typed = useKeptState<PainPattern[] | null>('pain-patterns', 'What holds where it hurts', null);
  const may = useMay();
  if (!data) return null;
  const shipped = bundled.data.painPatterns as PainPattern[];
  const inForce = data.painPatterns ?? shipped;
  const draft = typed.value;
  const change = (place: number, part: Partial<PainPattern>) =>
    typed.set((draft ?? []).map((one, i) => (i === place ? { ...one, ...part } : one)));
  const put = (painPatterns: PainPattern[] | null) =>
    save({ painPatterns, version: data.version })
      .unwrap()
      .then(typed.discard, () => undefined); // shown below
  return (
    <section className={`card ${classes.school}`} aria-labelledby="pain-patterns">
      <div className={classes.head}>
        <Title order={2} size={17} id="pain-patterns">
          What holds where it hurts
        </Title>
        <Text size="sm" c="var(--muted)">
          {data.painPatterns ? 'the practice’s own' : 'as shipped; judgement, low confidence'}
        </Text>
      </div>
      <Text size="sm" mb={6}>
        On a day on which a region hurts above the fine limit, these precautions hold there beside the rules
        of the day. They come from where it hurts and what it feels like.
      </Text>
      <RestoredNote restored={typed.restored} discard={typed.discard} />
      <div className={classes.scroll}>
        <Table className={classes.patterns} data-editing={draft !== null || undefined} verticalSpacing={4}>
          <Table.Thead>
            <Table.Tr>
              {['Region', 'Where', 'Feels like', 'From', 'Precautions that hold'].map((heading) => (
                <Table.Th key={heading} scope="col">
                  {heading}
                </Table.Th>
              ))}
            </Table.Tr>
          </Table.Thead>
          {draft ? (
            <Table.Tbody>
              {draft.map((one, i) => (
                <EditRow
                  key={i}
                  one={one}
                  place={i}
                  onChange={(part) => change(i, part)}
                  onRemove={() => typed.set(draft.filter((_, j) => j !== i))}
                />
              ))}
            </Table.Tbody>
          ) : (
            <Shown patterns={inForce} />
          )}
        </Table>
      </div>
      {may('owner') ? (
        <Group gap="xs" mt={8}>
          {draft ? (
            <>
              <Button
                size="xs"
                variant="default"
                leftSection={<IconPlus size={14} />}
                onClick={() => typed.set([...draft, NEW])}
              >
                Add a row
              </Button>
              <Button
                size="xs"
                loading={isLoading}
                disabled={draft.some((one) => one.precautions.length === 0)}
                onClick={() => void put(draft)}
              >
                Save for the practice
              </Button>
              <Button size="xs" variant="subtle" onClick={typed.discard}>
                Leave it
              </Button>
            </>
          ) : (
            <>
              <Button size="xs" variant="default" onClick={() => typed.set(inForce)}>
                Edit
              </Button>
              {data.painPatterns ? (
                <Button size="xs" variant="subtle" loading={isLoading} onClick={() => void put(null)}>
                  Set back to what ships
                </Button>
              ) : null}
            </>
          )}
        </Group>
      ) : null}
      <Refusal error={error} mt={6} />
    </section>
  );
}
