import { Alert, Button, Group, Text } from '@mantine/core';
import type { Draft } from '@yonder/core/contracts';
import { nameOf } from '@yonder/core/words';
import { useReference } from '../../app/reference.tsx';
import type { DraftConflict } from './useDraft.ts';

interface Props {
  /** The one made here and the one stored meanwhile. */
  conflict: DraftConflict;
  /** One was chosen. */
  onChoose: (which: 'mine' | 'theirs') => void;
}

/** Another draft of this athlete was stored meanwhile: both by their drills, and the choice. */
export function DraftConflictNote({ conflict, onChoose }: Props) {
  const reference = useReference();
  const words = (draft: Draft | null) =>
    draft
      ? `${draft.items.length} drills: ${draft.items.map((i) => nameOf(reference, i.drill).toLowerCase()).join(', ')}`
      : 'none; it was issued or thrown away';
  return (
    <Alert color="copper" role="alert" p={8} title="Two drafts of this routine">
      <Text size="sm">
        <b>Yours</b>, {words(conflict.mine)}.
      </Text>
      <Text size="sm">
        <b>Stored meanwhile</b>, {words(conflict.theirs.draft)}.
      </Text>
      <Group gap="xs" mt={6}>
        <Button size="compact-sm" onClick={() => onChoose('mine')}>
          Go on with mine
        </Button>
        <Button size="compact-sm" variant="default" onClick={() => onChoose('theirs')}>
          Take the stored one
        </Button>
      </Group>
    </Alert>
  );
}
