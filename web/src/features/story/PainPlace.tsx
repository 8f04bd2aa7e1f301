import { Select } from '@mantine/core';
import { PAIN_ASPECTS, PAIN_FEELS, REGIONS } from '@yonder/core/domain';
import { nameOf } from '@yonder/core/words';
import { useReference } from '../../app/reference.tsx';
import { SIDES } from './sides.ts';

interface Place {
  readonly region: string;
  readonly side: string;
  readonly aspect: string | null;
  readonly feel: string | null;
}

interface Props {
  /** Where it hurts and what it feels like, as far as it is said. */
  place: Place;
  /** Something else was said. */
  onChange: (change: Partial<Place>) => void;
}

/** Where it hurts and what it feels like: the same fields wherever pain is told. */
export function PainPlace({ place, onChange }: Props) {
  const reference = useReference();
  return (
    <>
      <Select
        size="xs"
        w={140}
        label="Where it hurts"
        data={REGIONS.map((r) => ({ value: r, label: nameOf(reference, r) }))}
        allowDeselect={false}
        value={place.region}
        onChange={(region) => region !== null && onChange({ region })}
      />
      <Select
        size="xs"
        w={92}
        label="Side"
        data={SIDES}
        allowDeselect={false}
        value={place.side}
        onChange={(side) => side !== null && onChange({ side })}
      />
      <Select
        size="xs"
        w={92}
        label="Aspect"
        clearable
        data={[...PAIN_ASPECTS]}
        value={place.aspect}
        onChange={(aspect) => onChange({ aspect })}
      />
      <Select
        size="xs"
        w={116}
        label="Feels like"
        clearable
        data={PAIN_FEELS.map((f) => ({ value: f, label: f.replace('-', ' ') }))}
        value={place.feel}
        onChange={(feel) => onChange({ feel })}
      />
    </>
  );
}
