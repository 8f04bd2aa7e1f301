import {
  Button,
  Chip,
  Fieldset,
  Group,
  MultiSelect,
  SegmentedControl,
  Select,
  SimpleGrid,
  Text,
  TextInput,
} from '@mantine/core';
import type { UseFormReturnType } from '@mantine/form';
import { athleteFieldsSchema } from '@yonder/core/contracts';
import type { AthleteFields } from '@yonder/core/contracts';
import { addDays, REGIONS } from '@yonder/core/domain';
import { kitWords } from '@yonder/core/formats';
import { nameOf, REGION_LABEL } from '@yonder/core/words';
import { zod4Resolver } from 'mantine-form-zod-resolver';
import { useEffect, useState } from 'react';
import { Refusal } from '../../components/Refusal.tsx';
import { fieldErrors } from '../../app/api.ts';
import { RestoredNote } from '../../app/kept/RestoredNote.tsx';
import { useKeptForm } from '../../app/kept/useKept.ts';
import { useReference } from '../../app/reference.tsx';
import { today } from '../../app/today.ts';
import { DayInput } from '../../components/DayInput.tsx';
import { UnitInput } from '../../components/UnitInput.tsx';
import { ExposureFields } from './ExposureFields.tsx';
import classes from './AthleteForm.module.css';

export const EMPTY_ATHLETE: AthleteFields = {
  name: '',
  birthDate: '',
  sport: '',
  bodyMassKg: null,
  limbLengthCm: {},
  dominantHand: null,
  dominantLeg: null,
  trainingYears: 0,
  tasks: [],
  exposure: [],
  kit: [],
  minutes: 10,
  minutesBuild: null,
  minutesRestore: null,
  places: [],
  dislikes: [],
  loadLimits: [],
  lightSpans: [],
};

interface Props {
  /** What the fields hold at first. */
  initial: AthleteFields;
  /** Under what key and name the typed values are kept on the device until they are stored. */
  keptAs: { readonly key: string; readonly label: string };
  /** Words on the button. */
  submitLabel: string;
  /** True while the fields are on their way. */
  busy: boolean;
  /** Error of the last attempt; its faults are shown at their fields. */
  error: unknown;
  /** The fields, checked; tells whether they were stored. */
  onSubmit: (fields: TypedAbout) => Promise<boolean>;
}

/** What is typed: the fields, and why a birth date on record is another one now. */
export type TypedAbout = AthleteFields & { birthDateWhy?: string };
type Form = UseFormReturnType<TypedAbout>;

/** Is the birth date another one than on record? Of somebody new there is none. */
const isChanged = (onRecord: string, { birthDate }: Pick<AthleteFields, 'birthDate'>) =>
  onRecord !== '' && birthDate !== onRecord;

function Who({ form, onRecord }: { form: Form; onRecord: string }) {
  const sideData = [
    { value: 'left', label: 'left' },
    { value: 'right', label: 'right' },
  ];
  return (
    <Fieldset legend="Who" className={classes.group}>
      <SimpleGrid cols={{ base: 1, xs: 2 }} spacing="sm">
        <TextInput label="Name" withAsterisk {...form.getInputProps('name')} />
        <DayInput label="Birth date" w={220} {...form.getInputProps('birthDate')} />
        {isChanged(onRecord, form.values) ? (
          <TextInput label="Why is the birth date another one?" {...form.getInputProps('birthDateWhy')} />
        ) : null}
        <TextInput label="Sport" {...form.getInputProps('sport')} />
        <UnitInput
          label="Training years"
          unit="years"
          min={0}
          max={80}
          value={form.values.trainingYears}
          error={form.errors.trainingYears}
          onChange={(value) => form.setFieldValue('trainingYears', value ?? 0)}
        />
        <Select label="Dominant hand" data={sideData} clearable {...form.getInputProps('dominantHand')} />
        <Select label="Dominant leg" data={sideData} clearable {...form.getInputProps('dominantLeg')} />
      </SimpleGrid>
    </Fieldset>
  );
}

function LimbInput({ form, limb, side }: { form: Form; limb: 'leg' | 'arm'; side: 'left' | 'right' }) {
  const own = form.values.limbLengthCm[limb];
  const set = (length: number | null) => {
    // The other side follows until it is typed itself; emptied means not measured.
    const follows = !own || own.left === own.right;
    const next =
      length === null ? undefined : follows ? { left: length, right: length } : { ...own, [side]: length };
    form.setFieldValue('limbLengthCm', { ...form.values.limbLengthCm, [limb]: next });
  };
  return (
    <UnitInput
      label={`${limb === 'leg' ? 'Leg' : 'Arm'} length, ${side}`}
      unit="cm"
      min={20}
      max={150}
      value={own?.[side]}
      onChange={set}
    />
  );
}

function Measures({ form }: { form: Form }) {
  return (
    <Fieldset legend="Measures" className={classes.group}>
      <SimpleGrid cols={{ base: 1, xs: 2 }} spacing="sm">
        <UnitInput
          label="Body mass"
          unit="kg"
          min={15}
          max={250}
          value={form.values.bodyMassKg}
          error={form.errors.bodyMassKg}
          onChange={(value) => form.setFieldValue('bodyMassKg', value)}
        />
        <LimbInput form={form} limb="leg" side="left" />
        <LimbInput form={form} limb="leg" side="right" />
        <LimbInput form={form} limb="arm" side="left" />
        <LimbInput form={form} limb="arm" side="right" />
      </SimpleGrid>
    </Fieldset>
  );
}

function Tasks({ form }: { form: Form }) {
  const reference = useReference();
  const sports = [...new Set(reference.data.demands.map((d) => d.sport))].sort();
  const data = sports.map((group) => ({
    group,
    items: reference.data.demands
      .filter((d) => d.sport === group)
      .map((d) => ({ value: d.id, label: d.name })),
  }));
  const setTasks = (ids: string[]) =>
    form.setFieldValue(
      'tasks',
      ids.map((id) => form.values.tasks.find((t) => t.id === id) ?? { id, lead: 'either' as const }),
    );
  return (
    <Fieldset legend="What the sport asks" className={classes.group}>
      <MultiSelect
        label="Sport tasks"
        description="Their demands become needs; every figure is an estimate"
        data={data}
        value={form.values.tasks.map((t) => t.id)}
        onChange={setTasks}
        searchable
        error={form.errors.tasks}
      />
      {form.values.tasks.map((task, index) => {
        const sided = reference.demands.get(task.id)?.demands.some((d) => d.side !== 'both');
        return sided ? (
          <Select
            key={task.id}
            mt={6}
            label={`${nameOf(reference, task.id)}: leading side`}
            description={reference.demands.get(task.id)?.sideNote}
            data={[
              { value: 'either', label: 'either side must meet it' },
              { value: 'left', label: 'left leads' },
              { value: 'right', label: 'right leads' },
            ]}
            value={task.lead}
            allowDeselect={false}
            onChange={(lead) => form.setFieldValue(`tasks.${index}.lead`, (lead ?? 'either') as 'either')}
          />
        ) : null;
      })}
    </Fieldset>
  );
}

function KitChips({ value, onChange }: { value: string[]; onChange: (kit: string[]) => void }) {
  const words = [...kitWords(useReference())].sort();
  return (
    <Chip.Group multiple value={value} onChange={onChange}>
      <Group gap={6}>
        {words.map((word) => (
          <Chip key={word} value={word} size="xs">
            {word.replaceAll('-', ' ')}
          </Chip>
        ))}
      </Group>
    </Chip.Group>
  );
}

/** The usual kit, and what is at hand at other places ("at home", "boathouse", "start area"). */
function Kit({ form }: { form: Form }) {
  const [shown, setShown] = useState<string>('usual');
  const { places } = form.values;
  const at = places.findIndex((_, index) => String(index) === shown);
  const add = () => {
    form.insertListItem('places', { name: `Place ${places.length + 1}`, kit: [] });
    setShown(String(places.length));
  };
  const remove = () => {
    form.removeListItem('places', at);
    setShown('usual');
  };
  return (
    <Fieldset legend="Kit at hand" className={classes.group}>
      <Group gap={6} mb={8}>
        <SegmentedControl
          size="xs"
          aria-label="Place"
          value={at < 0 ? 'usual' : shown}
          onChange={setShown}
          data={[
            { value: 'usual', label: 'Usual' },
            ...places.map((place, index) => ({ value: String(index), label: place.name || '…' })),
          ]}
        />
        {places.length < 12 ? (
          <Button size="compact-sm" variant="subtle" onClick={add}>
            Add place
          </Button>
        ) : null}
      </Group>
      {at < 0 ? (
        <KitChips value={form.values.kit} onChange={(kit) => form.setFieldValue('kit', kit)} />
      ) : (
        <>
          <Group align="flex-end" gap={6} mb={8}>
            <TextInput size="xs" label="Name of the place" {...form.getInputProps(`places.${at}.name`)} />
            <Button size="xs" variant="subtle" onClick={remove}>
              Remove place
            </Button>
          </Group>
          <KitChips
            value={places[at]?.kit ?? []}
            onChange={(kit) => form.setFieldValue(`places.${at}.kit`, kit)}
          />
        </>
      )}
    </Fieldset>
  );
}

const MINUTES = [
  ['minutes', 'Prepare'],
  ['minutesBuild', 'Build'],
  ['minutesRestore', 'Restore'],
] as const;

/** Minutes on hand per mode, and drills the athlete would rather not do. */
function Habits({ form }: { form: Form }) {
  const reference = useReference();
  return (
    <Fieldset legend="Minutes and dislikes" className={classes.group}>
      <SimpleGrid cols={{ base: 1, xs: 3 }} spacing="sm">
        {MINUTES.map(([key, label]) => (
          <UnitInput
            key={key}
            label={`Minutes, ${label.toLowerCase()}`}
            unit="min"
            min={1}
            max={120}
            placeholder="usual"
            value={form.values[key]}
            error={form.errors[key]}
            onChange={(value) => form.setFieldValue(key, key === 'minutes' ? (value ?? 10) : value)}
          />
        ))}
      </SimpleGrid>
      <MultiSelect
        mt="sm"
        label="Dislikes"
        description="Drills that are not chosen; a pin in a routine still brings one in"
        searchable
        data={reference.data.drills.map((d) => ({ value: d.id, label: d.name }))}
        value={form.values.dislikes}
        onChange={(ids) => form.setFieldValue('dislikes', ids)}
        error={form.errors.dislikes}
      />
    </Fieldset>
  );
}

/** The practitioner's own weekly limits: near one, the builder adds no conditioning for that region. */
function LoadLimits({ form }: { form: Form }) {
  const { loadLimits } = form.values;
  const left = REGIONS.filter((r) => r !== 'whole-body' && !loadLimits.some((l) => l.region === r));
  return (
    <Fieldset legend="Weekly limits of drills" className={classes.group}>
      {loadLimits.map(({ region, perWeek }, i) => (
        <Group key={region} align="flex-end" gap={6} mb={6}>
          <UnitInput
            label={REGION_LABEL[region]}
            unit="load-min"
            w={170}
            min={1}
            value={perWeek}
            error={form.errors[`loadLimits.${i}.perWeek`]}
            onChange={(value) => form.setFieldValue(`loadLimits.${i}.perWeek`, value as number)}
          />
          <Button
            size="xs"
            variant="subtle"
            color="gray"
            onClick={() => form.removeListItem('loadLimits', i)}
          >
            Remove
          </Button>
        </Group>
      ))}
      <Select
        label="Add a limit for"
        description="Load-minutes in seven days: work time × class of the drill. A count for spreading work, no measure of risk"
        placeholder="region"
        data={left.map((r) => ({ value: r, label: REGION_LABEL[r] }))}
        value={null}
        onChange={(region) => {
          if (region) form.insertListItem('loadLimits', { region, perWeek: 30 });
        }}
      />
    </Fieldset>
  );
}

/** Weeks in which nothing gets harder: before a competition, after travel. */
function LightSpans({ form }: { form: Form }) {
  const { lightSpans } = form.values;
  return (
    <Fieldset legend="Light weeks" className={classes.group}>
      {lightSpans.map((span, i) => (
        <Group key={i} align="flex-end" gap={6} mb={6}>
          <DayInput label="Light from" w={140} {...form.getInputProps(`lightSpans.${i}.from`)} />
          <DayInput label="to (last day)" w={140} {...form.getInputProps(`lightSpans.${i}.until`)} />
          <TextInput label="Why" w={170} {...form.getInputProps(`lightSpans.${i}.why`)} />
          <Button
            size="xs"
            variant="subtle"
            color="gray"
            onClick={() => form.removeListItem('lightSpans', i)}
          >
            Remove
          </Button>
        </Group>
      ))}
      <Button
        size="xs"
        variant="default"
        onClick={() =>
          form.insertListItem('lightSpans', { from: today(), until: addDays(today(), 6), why: '' })
        }
      >
        Mark a light week
      </Button>
      <Text size="xs" c="var(--muted)" mt={4}>
        Before a competition or after travel: Progress proposes nothing harder until it is over.
      </Text>
    </Fieldset>
  );
}

/** Everything typed about an athlete, checked by the same schema as on the server. */
export function AthleteForm({ initial, keptAs, submitLabel, busy, error, onSubmit }: Props) {
  const { form, done, ...before } = useKeptForm<TypedAbout>(keptAs.key, keptAs.label, {
    initialValues: { ...initial, birthDateWhy: '' },
    validate: ({ birthDateWhy = '', ...fields }) => ({
      ...zod4Resolver(athleteFieldsSchema)(fields),
      ...(isChanged(initial.birthDate, fields) && birthDateWhy.trim().length < 3
        ? { birthDateWhy: 'say why: the age rules hang on it' }
        : {}),
    }),
  });
  const { setErrors } = form;
  useEffect(() => {
    if (error) setErrors(fieldErrors(error));
  }, [error, setErrors]);
  return (
    <form
      onSubmit={form.onSubmit(({ birthDateWhy, ...fields }) => {
        const why = isChanged(initial.birthDate, fields) ? { birthDateWhy } : {};
        void onSubmit({ ...fields, ...why }).then((stored) => stored && done());
      })}
      noValidate
    >
      <RestoredNote {...before} />
      <div className={classes.grid}>
        <Who form={form} onRecord={initial.birthDate} />
        <Measures form={form} />
        <Tasks form={form} />
        <ExposureFields form={form} />
        <Habits form={form} />
        <LoadLimits form={form} />
        <LightSpans form={form} />
        <Kit form={form} />
      </div>
      <Refusal error={error} mt="sm" />
      <Button type="submit" mt="sm" loading={busy}>
        {submitLabel}
      </Button>
    </form>
  );
}
