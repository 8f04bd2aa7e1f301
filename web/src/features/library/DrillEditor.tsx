import {
  Alert,
  Button,
  Checkbox,
  Chip,
  Fieldset,
  Group,
  MultiSelect,
  Select,
  SimpleGrid,
  TagsInput,
  Text,
  Textarea,
  TextInput,
  Title,
} from '@mantine/core';
import { useForm } from '@mantine/form';
import type { UseFormReturnType } from '@mantine/form';
import type { OwnDrillRow } from '@yonder/core/contracts';
import { REGIONS } from '@yonder/core/domain';
import { kitWords, ownDrillOf, ownDrillsFaults } from '@yonder/core/formats';
import { demandIndexOf, requiredPrecautions } from '@yonder/core/reference';
import type { OwnDrill } from '@yonder/core/reference';
import { ownDrillSchema } from '@yonder/core/schemas';
import { CATEGORY_LABEL, nameOf, REGION_LABEL } from '@yonder/core/words';
import { zod4Resolver } from 'mantine-form-zod-resolver';
import { useEffect, useMemo } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { errorText, fieldErrors } from '../../app/api.ts';
import { useBundledReference, useReference } from '../../app/reference.tsx';
import { UnitInput } from '../../components/UnitInput.tsx';
import { useFiguresQuery } from '../figures/figureEndpoints.ts';
import classes from './Library.module.css';
import { useSaveDrillMutation } from './libraryEndpoints.ts';

type Form = UseFormReturnType<OwnDrill>;

const plain = (value: string) => ({ value, label: value.replaceAll('-', ' ') });
const NEW_LADDER = 'own-new-ladder';

/** An emptied field stays empty while it is typed into; the schema then says that a number is missing. */
const typed = (value: number | null) => value as number;

/** A blank drill: a gentle one that stands, needs nothing and is counted in repetitions. */
function blank(): OwnDrill {
  return ownDrillSchema.parse({
    id: 'own-new',
    name: 'New drill',
    ladder: NEW_LADDER,
    ladderName: 'New ladder',
    level: 1,
    category: 'activate',
    regions: { primary: ['ankle-foot'] },
    serves: [{ restriction: 'ankle-balance-deficit', match: 0.7 }],
    contraction: 'dynamic',
    position: 'standing',
    loadClass: 'partial',
    intensityClass: 'low',
    dose: {
      measure: 'reps',
      sets: { default: 2, min: 1, max: 3 },
      amount: { default: 10, min: 6, max: 15 },
      restSeconds: { default: 20 },
      secondsPerRep: 3,
      intensity: 'stop well before failure',
    },
    fatigue: 1,
    skill: 1,
    cues: ['Quiet and controlled'],
    feelsLike: 'Light work, no pain',
    athleteText: 'Say in one sentence what to do.',
    timing: ['before-activity', 'standalone'],
  });
}

function What({ form }: { form: Form }) {
  const reference = useReference();
  const { ladder } = form.values;
  const known = reference.ladders.get(ladder);
  const ladders = reference.data.ladders.map((l) => ({ value: l.id, label: l.name }));
  const isNew = !known || form.values.ladderName !== undefined;
  return (
    <Fieldset legend="What it is">
      <TextInput label="Name" {...form.getInputProps('name')} />
      <SimpleGrid cols={2} spacing="xs" mt={6}>
        <Select
          label="Ladder"
          searchable
          limit={60}
          data={[
            { value: NEW_LADDER, label: '— a new ladder —' },
            ...ladders.filter((l) => l.value !== NEW_LADDER),
          ]}
          value={ladder}
          allowDeselect={false}
          onChange={(value) => {
            form.setFieldValue('ladder', value ?? NEW_LADDER);
            form.setFieldValue('ladderName', reference.ladders.has(value ?? '') ? undefined : 'New ladder');
          }}
        />
        <UnitInput
          label="Place in the ladder"
          unit="from the easiest"
          min={1}
          max={30}
          value={form.values.level}
          error={form.errors.level}
          onChange={(v) => form.setFieldValue('level', typed(v))}
        />
      </SimpleGrid>
      {isNew && form.values.ladderName !== undefined ? (
        <TextInput
          mt={6}
          label="Name of the new ladder"
          value={form.values.ladderName}
          error={form.errors.ladderName}
          onChange={(e) => form.setFieldValue('ladderName', e.currentTarget.value)}
        />
      ) : (
        <Text size="sm" c="var(--muted)" mt={4}>
          {known?.drills.map((id, i) => `${i + 1} ${nameOf(reference, id)}`).join(' · ')}
        </Text>
      )}
      <SimpleGrid cols={2} spacing="xs" mt={6}>
        <Select
          label="Kind"
          allowDeselect={false}
          data={Object.entries(CATEGORY_LABEL).map(([value, label]) => ({ value, label }))}
          {...form.getInputProps('category')}
        />
        <Select
          label="Movement"
          allowDeselect={false}
          data={['isometric-hold', 'dynamic', 'ballistic', 'passive'].map(plain)}
          {...form.getInputProps('contraction')}
        />
        <Select
          label="Position"
          allowDeselect={false}
          data={[...new Set(reference.data.drills.map((d) => d.position))].sort().map(plain)}
          {...form.getInputProps('position')}
        />
        <MultiSelect
          label="Kit"
          searchable
          data={[...kitWords(reference)].sort().map(plain)}
          {...form.getInputProps('equipment')}
        />
        <MultiSelect
          label="Regions"
          data={REGIONS.map((r) => ({ value: r, label: REGION_LABEL[r] }))}
          value={form.values.regions.primary}
          error={form.errors['regions.primary']}
          onChange={(v) => form.setFieldValue('regions.primary', v as OwnDrill['regions']['primary'])}
        />
        <MultiSelect
          label="When"
          data={['before-activity', 'standalone', 'after-activity'].map(plain)}
          {...form.getInputProps('timing')}
        />
      </SimpleGrid>
      <Group mt={8} gap="md">
        <Checkbox
          label="one side at a time"
          checked={form.values.unilateral}
          onChange={(e) => form.setFieldValue('unilateral', e.currentTarget.checked)}
        />
        <Checkbox
          label="left and right in turn"
          checked={form.values.alternating}
          error={form.errors.alternating}
          onChange={(e) => form.setFieldValue('alternating', e.currentTarget.checked)}
        />
        <Checkbox
          label="needs a helper"
          checked={form.values.needsPartner}
          onChange={(e) => form.setFieldValue('needsPartner', e.currentTarget.checked)}
        />
        <Checkbox
          label="offered under 16"
          checked={form.values.youthOk}
          onChange={(e) => form.setFieldValue('youthOk', e.currentTarget.checked)}
        />
      </Group>
    </Fieldset>
  );
}

const MATCHES = [
  { value: '1', label: '1 main purpose' },
  { value: '0.7', label: '0.7 strong' },
  { value: '0.4', label: '0.4 useful' },
  { value: '0.2', label: '0.2 side benefit' },
];

function Serves({ form }: { form: Form }) {
  const reference = useReference();
  const data = reference.data.restrictions.map((r) => ({ value: r.id, label: r.name }));
  return (
    <Fieldset legend="What it serves">
      {form.values.serves.map((serve, i) => (
        <div key={`${serve.restriction}-${i}`} className={classes.rowLine}>
          <Select
            aria-label={`Restriction ${i + 1}`}
            searchable
            allowDeselect={false}
            w={260}
            data={data}
            {...form.getInputProps(`serves.${i}.restriction`)}
          />
          <Select
            aria-label={`Match ${i + 1}`}
            allowDeselect={false}
            w={150}
            data={
              MATCHES.some((m) => m.value === String(serve.match))
                ? MATCHES
                : [...MATCHES, { value: String(serve.match), label: String(serve.match) }]
            }
            value={String(serve.match)}
            onChange={(v) => form.setFieldValue(`serves.${i}.match`, Number(v))}
          />
          <Button
            size="compact-sm"
            variant="subtle"
            color="gray"
            disabled={form.values.serves.length === 1}
            onClick={() => form.removeListItem('serves', i)}
          >
            Remove
          </Button>
        </div>
      ))}
      <Button
        mt={8}
        size="compact-sm"
        variant="light"
        onClick={() => form.insertListItem('serves', { restriction: data[0]?.value ?? '', match: 0.4 })}
      >
        Add a restriction
      </Button>
    </Fieldset>
  );
}

function Dose({ form }: { form: Form }) {
  const { dose } = form.values;
  const unit = { reps: 'reps', 'hold-seconds': 's', seconds: 's', metres: 'm', contacts: 'contacts' }[
    dose.measure
  ];
  const range = (path: 'sets' | 'amount', label: string, own: string) => (
    <SimpleGrid cols={3} spacing="xs" mt={6}>
      {(['min', 'default', 'max'] as const).map((key) => (
        <UnitInput
          key={key}
          label={`${label}, ${key === 'default' ? 'usual' : key === 'min' ? 'least' : 'most'}`}
          unit={own}
          min={1}
          value={dose[path][key]}
          error={
            form.errors[`dose.${path}.${key}`] ?? (key === 'default' ? form.errors[`dose.${path}`] : null)
          }
          onChange={(v) => form.setFieldValue(`dose.${path}.${key}`, typed(v))}
        />
      ))}
    </SimpleGrid>
  );
  return (
    <Fieldset legend="Dose">
      <SimpleGrid cols={2} spacing="xs">
        <Select
          label="Counted in"
          allowDeselect={false}
          data={['reps', 'hold-seconds', 'seconds', 'metres', 'contacts'].map(plain)}
          {...form.getInputProps('dose.measure')}
        />
        <UnitInput
          label="Seconds for one"
          unit="s"
          min={0}
          value={dose.secondsPerRep}
          error={form.errors['dose.secondsPerRep']}
          onChange={(v) => form.setFieldValue('dose.secondsPerRep', typed(v))}
        />
      </SimpleGrid>
      {range('sets', 'Sets', '')}
      {range('amount', 'Amount', unit)}
      <SimpleGrid cols={3} spacing="xs" mt={6}>
        <UnitInput
          label="Rest"
          unit="s"
          min={0}
          value={dose.restSeconds.default}
          onChange={(v) => form.setFieldValue('dose.restSeconds.default', typed(v))}
        />
        <UnitInput
          label="Hold of each"
          unit="s"
          min={0}
          placeholder="none"
          value={dose.holdSeconds}
          onChange={(v) => form.setFieldValue('dose.holdSeconds', v)}
        />
        <UnitInput
          label="Setting up"
          unit="s"
          min={0}
          value={form.values.setupSeconds}
          onChange={(v) => form.setFieldValue('setupSeconds', typed(v))}
        />
      </SimpleGrid>
      <TextInput mt={6} label="Effort in words" {...form.getInputProps('dose.intensity')} />
    </Fieldset>
  );
}

function Load({ form }: { form: Form }) {
  const reference = useReference();
  const required = requiredPrecautions(form.values);
  return (
    <Fieldset legend="Load and precautions">
      <SimpleGrid cols={2} spacing="xs">
        <Select
          label="Load"
          allowDeselect={false}
          data={['unloaded', 'partial', 'full', 'impact'].map(plain)}
          {...form.getInputProps('loadClass')}
        />
        <Select
          label="Class for the weekly count"
          allowDeselect={false}
          data={['low', 'moderate', 'high'].map(plain)}
          {...form.getInputProps('intensityClass')}
        />
        <UnitInput
          label="Fatigue"
          unit="0–4"
          min={0}
          max={4}
          value={form.values.fatigue}
          error={form.errors.fatigue}
          onChange={(v) => form.setFieldValue('fatigue', typed(v))}
        />
        <UnitInput
          label="Skill"
          unit="1–5"
          min={1}
          max={5}
          value={form.values.skill}
          error={form.errors.skill}
          onChange={(v) => form.setFieldValue('skill', typed(v))}
        />
        <UnitInput
          label="Warms"
          unit="0–3"
          min={0}
          max={3}
          value={form.values.raisesTemperature}
          error={form.errors.raisesTemperature}
          onChange={(v) => form.setFieldValue('raisesTemperature', typed(v))}
        />
      </SimpleGrid>
      <Text size="sm" mt={6}>
        Demand {demandIndexOf(form.values)}: load + fatigue + skill, one more when ballistic.
      </Text>
      <MultiSelect
        mt={6}
        label="Stops or changes with these precautions"
        searchable
        data={reference.data.precautions.map((p) => ({ value: p.id, label: p.name }))}
        value={[...new Set([...form.values.contraindications, ...required])]}
        error={form.errors.contraindications}
        onChange={(v) => form.setFieldValue('contraindications', v)}
      />
      {required.length > 0 ? (
        <Text size="sm" c="var(--muted)">
          Always with a drill like this:{' '}
          {required.map((id) => nameOf(reference, id).toLowerCase()).join('; ')}.
        </Text>
      ) : null}
    </Fieldset>
  );
}

function SetupSteps({ form }: { form: Form }) {
  return (
    <Fieldset legend="Set-up, each with steps from easier to harder">
      {form.values.setupVariables.map((variable, i) => (
        <div key={i} className={classes.rowLine}>
          <TextInput label="What" w={170} {...form.getInputProps(`setupVariables.${i}.name`)} />
          <TextInput label="Harder when" w={150} {...form.getInputProps(`setupVariables.${i}.harder`)} />
          <TagsInput
            label="Steps"
            w={230}
            allowDuplicates={false}
            value={variable.steps.map(String)}
            error={form.errors[`setupVariables.${i}.steps`]}
            onChange={(steps) => {
              const own = steps.every((s) => s.trim() !== '' && Number.isFinite(Number(s)))
                ? steps.map(Number)
                : steps;
              form.setFieldValue(`setupVariables.${i}.steps`, own);
              form.setFieldValue(
                `setupVariables.${i}.scale`,
                typeof own[0] === 'number' ? 'number' : 'ordered',
              );
              if (!own.some((s) => s === variable.default))
                form.setFieldValue(`setupVariables.${i}.default`, own[0] ?? '');
            }}
          />
          <Select
            label="Usual"
            w={110}
            allowDeselect={false}
            data={variable.steps.map(String)}
            value={String(variable.default)}
            onChange={(v) =>
              form.setFieldValue(
                `setupVariables.${i}.default`,
                variable.steps.find((s) => String(s) === v) ?? '',
              )
            }
          />
          <Button
            size="compact-sm"
            variant="subtle"
            color="gray"
            onClick={() => form.removeListItem('setupVariables', i)}
          >
            Remove
          </Button>
        </div>
      ))}
      <Button
        mt={8}
        size="compact-sm"
        variant="light"
        onClick={() =>
          form.insertListItem('setupVariables', {
            id: `own-${form.values.setupVariables.length + 1}`,
            name: 'Height',
            unit: null,
            scale: 'ordered',
            easier: 'lower',
            harder: 'higher',
            steps: ['low', 'high'],
            default: 'low',
          })
        }
      >
        Add a set-up
      </Button>
    </Fieldset>
  );
}

function Words({ form }: { form: Form }) {
  const reference = useReference();
  const { patterns } = form.values;
  return (
    <Fieldset legend="In words">
      <Textarea
        label="For the athlete, one plain sentence"
        autosize
        minRows={2}
        {...form.getInputProps('athleteText')}
      />
      <TagsInput mt={6} label="Cues, one each" splitChars={[';']} {...form.getInputProps('cues')} />
      <TagsInput
        mt={6}
        label="Faults to watch, one each"
        splitChars={[';']}
        {...form.getInputProps('faults')}
      />
      <TextInput mt={6} label="What it feels like" {...form.getInputProps('feelsLike')} />
      <Text size="sm" fw={500} mt={10} mb={4}>
        Rehearses these actions (else its ladder says so)
      </Text>
      <Chip.Group
        multiple
        value={Object.keys(patterns)}
        onChange={(ids) =>
          form.setFieldValue('patterns', Object.fromEntries(ids.map((id) => [id, patterns[id] ?? 0.7])))
        }
      >
        <Group gap={5}>
          {reference.data.patterns.map(({ id, name }) => (
            <Chip key={id} value={id} size="xs">
              {name}
            </Chip>
          ))}
        </Group>
      </Chip.Group>
    </Fieldset>
  );
}

/** What the rules of the library say against the drill as it is typed, by field. */
function ruleFaults(
  form: OwnDrill,
  check: (drill: OwnDrill) => readonly { path: string; message: string }[],
) {
  return Object.fromEntries(
    check(form).map(({ path, message }) => [
      path.replace(/^\$\[\d+\]\.?/, '').replaceAll(/\[(\d+)\]/g, '.$1'),
      message,
    ]),
  );
}

function Editor({ initial, row }: { initial: OwnDrill; row: OwnDrillRow | null }) {
  const bundled = useBundledReference();
  const { data: figures } = useFiguresQuery();
  const navigate = useNavigate();
  const [save, { isLoading, error }] = useSaveDrillMutation();
  const others = useMemo(
    () => (figures?.drills ?? []).map((r) => r.drill).filter((d) => d.id !== row?.drill.id),
    [figures, row],
  );
  const shape = zod4Resolver(ownDrillSchema);
  const complete = (values: OwnDrill): OwnDrill => ({
    ...values,
    contraindications: [...new Set([...values.contraindications, ...requiredPrecautions(values)])],
  });
  const form = useForm<OwnDrill>({
    initialValues: initial,
    validate: (values) => {
      const own = shape(values);
      if (Object.keys(own).length > 0) return own;
      return ruleFaults(complete(values), (drill) =>
        ownDrillsFaults(bundled, [drill, ...others]).filter((f) => f.path.startsWith('$[0]')),
      );
    },
  });
  const { setErrors } = form;
  useEffect(() => {
    if (!error) return;
    const faults = fieldErrors(error);
    setErrors(Object.fromEntries(Object.entries(faults).map(([k, v]) => [k.replace(/^drill\./, ''), v])));
  }, [error, setErrors]);
  const send = form.onSubmit((values) => {
    save({ rowId: row?.rowId ?? null, body: { drill: complete(values), version: row?.version ?? null } })
      .unwrap()
      .then(
        ({ drills }) => {
          const saved = row
            ? row.drill.id
            : drills.find((d) => !figures?.drills.some((f) => f.rowId === d.rowId))?.drill.id;
          void navigate(`/library?whose=own&drill=${saved ?? ''}`);
        },
        () => undefined, // shown below
      );
  });
  const faults = Object.values(form.errors).filter(Boolean);
  return (
    <form onSubmit={send} noValidate className={classes.editor}>
      <Title order={1} size={26} mb={8}>
        {row ? `Edit ${row.drill.name}` : 'A drill of the practice’s own'}
      </Title>
      <div className={`card ${classes.save}`}>
        {faults.length > 0 ? (
          <Alert color="copper" role="alert" p={8} mb={6}>
            {faults.map(String).join('. ')}
          </Alert>
        ) : null}
        {error && faults.length === 0 ? (
          <Alert color="copper" role="alert" p={8} mb={6}>
            {errorText(error)}
          </Alert>
        ) : null}
        <Group>
          <Button type="submit" loading={isLoading}>
            Save drill
          </Button>
          <Button component={Link} to="/library" variant="subtle" color="gray">
            Back without saving
          </Button>
          <Text size="sm" c="var(--muted)">
            Held to the same rules as every drill here; precautions bind it as well.
          </Text>
        </Group>
      </div>
      <div className={classes.grid}>
        <What form={form} />
        <Serves form={form} />
        <Dose form={form} />
        <Load form={form} />
        <SetupSteps form={form} />
        <Words form={form} />
      </div>
    </form>
  );
}

/** A new drill, blank or copied, or an own one to change. */
export function DrillEditor() {
  const reference = useReference();
  const { rowId } = useParams();
  const [search] = useSearchParams();
  const { data: figures } = useFiguresQuery();
  if (!figures) return null;
  const row = figures.drills.find((r) => r.rowId === rowId) ?? null;
  if (rowId && !row) return <Text p="xl">This drill is not there.</Text>;
  const source = reference.drills.get(search.get('copy') ?? '');
  const initial = row?.drill ?? (source ? ownDrillOf(source, 'own-new', `${source.name} (own)`) : blank());
  return <Editor key={rowId ?? search.get('copy') ?? 'blank'} initial={initial} row={row} />;
}
