import { Button, Fieldset, Group, Text } from '@mantine/core';
import { standingFigure } from '@yonder/core/figure';
import { lazy, Suspense, useState } from 'react';
import { useReference } from '../../../app/reference.tsx';
import { MovingPicture } from '../../picture/MovingPicture.tsx';
import { usePicture } from '../../picture/usePicture.ts';
import type { DrillForm } from './drillForm.ts';

const PictureEditor = lazy(() =>
  import('../../picture/editor/PictureEditor.tsx').then((m) => ({ default: m.PictureEditor })),
);

/** How the drill is drawn: as the one it was copied from, or by hand. */
export function PictureFields({ form }: { form: DrillForm }) {
  const reference = useReference();
  const { picture, from, dose, unilateral, alternating } = form.values;
  const inherited = usePicture(from ? reference.drills.get(from) : undefined);
  const [drawing, setDrawing] = useState(false);
  const shown = picture ?? inherited;
  const rhythm = { tempo: dose.tempo, secondsPerRep: dose.secondsPerRep, holdSeconds: dose.holdSeconds };
  const faults = Object.entries(form.errors).filter(([path]) => path.startsWith('picture'));
  return (
    <Fieldset legend="Picture">
      {shown ? (
        <MovingPicture
          figure={shown}
          label={form.values.athleteText}
          rhythm={rhythm}
          sided={unilateral || alternating}
        />
      ) : null}
      <Text size="sm" c="var(--muted)" mt={6}>
        {picture
          ? 'Drawn for this drill.'
          : inherited
            ? 'As the drill it was copied from.'
            : 'None yet; on paper and in the list it stands without one.'}
      </Text>
      {faults.map(([path, message]) => (
        <Text key={path} size="sm" c="var(--right)" role="alert">
          {path}: {String(message)}
        </Text>
      ))}
      <Group gap={6} mt={8}>
        <Button size="xs" variant="light" onClick={() => setDrawing(true)}>
          {shown ? 'Change the picture' : 'Draw a picture'}
        </Button>
        {picture ? (
          <Button
            size="xs"
            variant="subtle"
            color="gray"
            onClick={() => form.setFieldValue('picture', undefined)}
          >
            {inherited ? 'As its source' : 'Without a picture'}
          </Button>
        ) : null}
      </Group>
      {drawing ? (
        <Suspense fallback={null}>
          <PictureEditor
            initial={shown ?? standingFigure()}
            rhythm={rhythm}
            onChange={(next) => form.setFieldValue('picture', next)}
            onClose={() => setDrawing(false)}
          />
        </Suspense>
      ) : null}
    </Fieldset>
  );
}
