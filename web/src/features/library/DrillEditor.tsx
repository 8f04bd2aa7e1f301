import { Alert, Button, Group, Text, Title } from '@mantine/core';
import type { OwnDrillRow } from '@yonder/core/contracts';
import { ownDrillOf, ownDrillsFaults } from '@yonder/core/formats';
import { requiredPrecautions } from '@yonder/core/reference';
import type { OwnDrill } from '@yonder/core/reference';
import { ownDrillSchema } from '@yonder/core/schemas';
import { zod4Resolver } from 'mantine-form-zod-resolver';
import { useEffect, useMemo } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { errorText, fieldErrors } from '../../app/api.ts';
import { useKeptForm } from '../../app/kept/useKept.ts';
import { RestoredNote } from '../../app/kept/RestoredNote.tsx';
import { useBundledReference, useReference } from '../../app/reference.tsx';
import { useFiguresQuery } from '../figures/figureEndpoints.ts';
import { blankDrill } from './editor/drillForm.ts';
import { useLooser } from './editor/useLooser.ts';
import { WhatFields } from './editor/WhatFields.tsx';
import { PictureFields } from './editor/PictureFields.tsx';
import { ServesFields } from './editor/ServesFields.tsx';
import { DoseFields } from './editor/DoseFields.tsx';
import { LoadFields } from './editor/LoadFields.tsx';
import { SetupFields } from './editor/SetupFields.tsx';
import { WordsFields } from './editor/WordsFields.tsx';
import classes from './Library.module.css';
import { useSaveDrillMutation } from './libraryEndpoints.ts';

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

interface EditorProps {
  /** What the form starts from. */
  initial: OwnDrill;
  /** The stored drill that is changed; null for a new one. */
  row: OwnDrillRow | null;
  /** Under which name the typed values are kept on the device. */
  keptAs: string;
}

function Editor({ initial, row, keptAs }: EditorProps) {
  const bundled = useBundledReference();
  const { data: figures } = useFiguresQuery();
  const navigate = useNavigate();
  const [save, { isLoading, error }] = useSaveDrillMutation();
  const others = useMemo(
    () => (figures?.drills ?? []).map((r) => r.drill).filter((d) => d.id !== row?.drill.id),
    [figures, row],
  );
  const shape = zod4Resolver(ownDrillSchema);
  const looserOf = useLooser();
  const complete = ({ looser, ...values }: OwnDrill): OwnDrill => ({
    ...values,
    ...(looser && looserOf(values).traits.length > 0 ? { looser } : {}),
    contraindications: [
      ...new Set([...values.contraindications, ...requiredPrecautions(values, bundled.data.precautions)]),
    ],
  });
  const { form, done, ...before } = useKeptForm<OwnDrill>(keptAs, 'A drill of your own', {
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
          done();
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
      <RestoredNote {...before} />
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
        <WhatFields form={form} />
        <PictureFields form={form} />
        <ServesFields form={form} />
        <DoseFields form={form} />
        <LoadFields form={form} />
        <SetupFields form={form} />
        <WordsFields form={form} />
      </div>
    </form>
  );
}

/** A new drill, blank, copied or named by a line of a routine, or an own one to change. */
export function DrillEditor() {
  const reference = useReference();
  const { rowId } = useParams();
  const [search] = useSearchParams();
  const { data: figures } = useFiguresQuery();
  if (!figures) return null;
  const row = figures.drills.find((r) => r.rowId === rowId) ?? null;
  if (rowId && !row) return <Text p="xl">This drill is not there.</Text>;
  const source = reference.drills.get(search.get('copy') ?? '');
  const named = (search.get('named') ?? '').slice(0, 80);
  const fresh = source
    ? ownDrillOf(source, 'own-new', `${source.name} (own)`)
    : { ...blankDrill(), ...(named ? { name: named } : {}) };
  const initial = row?.drill ?? fresh;
  const name = rowId ?? search.get('copy') ?? (named || 'blank');
  return <Editor key={name} initial={initial} row={row} keptAs={`drill/${name}`} />;
}
