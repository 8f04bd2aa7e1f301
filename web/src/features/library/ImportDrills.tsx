import { Alert, Button, FileButton, Group, Stack, Text } from '@mantine/core';
import { Refusal } from '../../components/Refusal.tsx';
import { Dialog } from '../../components/Dialog.tsx';
import { IconUpload } from '@tabler/icons-react';
import type { ImportedDrills } from '@yonder/core/contracts';
import { readDrillFile } from '@yonder/core/formats';
import { useState } from 'react';
import { errorText } from '../../app/api.ts';
import { useImportDrillsMutation } from './libraryEndpoints.ts';

interface Picked {
  readonly file: string;
  readonly drills: unknown[];
  readonly checked: ImportedDrills;
}

const SHOWN = 12;

/** Takes drills of a drill file over, after showing what would happen: all of them or none. */
export function ImportDrills() {
  const [picked, setPicked] = useState<Picked | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [send, { isLoading, error }] = useImportDrillsMutation();
  const read = async (file: File | null) => {
    if (!file) return;
    setProblem(null);
    const found = readDrillFile(await file.text());
    if ('fault' in found) {
      setProblem(`${file.name}, ${found.fault.path}: ${found.fault.message}`);
      return;
    }
    send({ drills: found.drills, check: true })
      .unwrap()
      .then(
        (checked) => setPicked({ file: file.name, drills: found.drills, checked }),
        (failed: unknown) => setProblem(errorText(failed)),
      );
  };
  const take = () => {
    if (!picked) return;
    send({ drills: picked.drills, check: false })
      .unwrap()
      .then(
        () => setPicked(null),
        () => undefined, // shown in the dialog
      );
  };
  const faults = picked?.checked.faults ?? [];
  return (
    <>
      <FileButton onChange={(file) => void read(file)} accept="application/json,.json">
        {(props) => (
          <Button
            {...props}
            variant="default"
            size="xs"
            leftSection={<IconUpload size={15} />}
            loading={isLoading}
          >
            Import
          </Button>
        )}
      </FileButton>
      {problem ? (
        <Alert
          color="copper"
          role="alert"
          p={6}
          withCloseButton
          closeButtonLabel="Close"
          onClose={() => setProblem(null)}
        >
          {problem}
        </Alert>
      ) : null}
      {picked ? (
        <Dialog onClose={() => setPicked(null)} title={`Import ${picked.file}`}>
          <Stack gap="xs">
            {picked.checked.added.length > 0 ? (
              <Text size="sm">New: {picked.checked.added.join(', ')}.</Text>
            ) : null}
            {picked.checked.replaced.length > 0 ? (
              <Text size="sm">
                Replaced, since their id is there already: {picked.checked.replaced.join(', ')}.
              </Text>
            ) : null}
            {faults.length > 0 ? (
              <Alert color="copper" role="alert" title="Nothing can be taken over yet">
                <ul>
                  {faults.slice(0, SHOWN).map(({ path, message }) => (
                    <li key={`${path} ${message}`}>
                      {path}: {message}
                    </li>
                  ))}
                </ul>
                {faults.length > SHOWN ? `and ${faults.length - SHOWN} more.` : ''}
              </Alert>
            ) : null}
            <Refusal error={error} />
            <Group justify="flex-end">
              <Button variant="default" onClick={() => setPicked(null)}>
                Cancel
              </Button>
              <Button disabled={faults.length > 0} loading={isLoading} onClick={take}>
                Take them over
              </Button>
            </Group>
          </Stack>
        </Dialog>
      ) : null}
    </>
  );
}
