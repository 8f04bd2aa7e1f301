import { Alert, Button, Checkbox, FileInput, Group, Select, SimpleGrid, Text, Title } from '@mantine/core';
import { IconDownload, IconUpload } from '@tabler/icons-react';
import type { Imported } from '@yonder/core/contracts';
import { CSV_FIELDS, guessMapping, missingFields, readScreeningRows } from '@yonder/core/formats';
import type { DayOrder } from '@yonder/core/domain';
import type { CsvMapping } from '@yonder/core/formats';
import { resultValue } from '@yonder/core/measure';
import { figure, nameOf, SIDE_LABEL } from '@yonder/core/words';
import Papa from 'papaparse';
import { useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import { Allowed } from '../../app/Allowed.tsx';
import { Refusal } from '../../components/Refusal.tsx';
import { useReference } from '../../app/reference.tsx';
import { dayText } from '../../app/today.ts';
import { useAthletesQuery } from '../athletes/athleteEndpoints.ts';
import { useImportScreeningsMutation } from '../screen/screeningEndpoints.ts';
import classes from './Import.module.css';

/** A file with the headings and one made-up row, to be written over. */
const TEMPLATE = `data:text/csv;charset=utf-8,${encodeURIComponent(
  `${CSV_FIELDS.join(',')}\nName of the athlete,14.3.2027,"Weight-bearing lunge test, toe-to-wall distance",left,7.0,7.2,7.1,,,,0,,\n`,
)}`;
const SHOWN = 8;
const MOST = 2000;

interface Table {
  readonly columns: string[];
  readonly rows: Record<string, string>[];
}

function readFile(file: File): Promise<Table> {
  return new Promise((resolve, reject) => {
    Papa.parse<Record<string, string>>(file, {
      header: true,
      skipEmptyLines: 'greedy',
      complete: ({ data, meta }) => resolve({ columns: meta.fields ?? [], rows: data }),
      error: reject,
    });
  });
}

interface MappingProps {
  /** Headings of the file. */
  columns: readonly string[];
  /** Which heading holds what. */
  mapping: CsvMapping;
  /** Another heading was chosen. */
  onChange: (mapping: CsvMapping) => void;
}

/** Which column of the file holds what. */
function Mapping({ columns, mapping, onChange }: MappingProps) {
  return (
    <SimpleGrid cols={{ base: 2, sm: 4, lg: 7 }} spacing="xs">
      {CSV_FIELDS.map((field) => (
        <Select
          key={field}
          size="xs"
          label={field}
          placeholder="not in the file"
          clearable
          data={[...columns]}
          value={mapping[field]}
          onChange={(column) => onChange({ ...mapping, [field]: column })}
        />
      ))}
    </SimpleGrid>
  );
}

function Done({ imported }: { imported: Imported }) {
  return (
    <Alert color="teal" role="status" title="Imported">
      {imported.results} results in {imported.visits} visits of {imported.athletes}{' '}
      {imported.athletes === 1 ? 'athlete' : 'athletes'}.{' '}
      {imported.unchanged > 0 ? `${imported.unchanged} were stored just so already. ` : ''}
      {imported.replaced > 0 ? `${imported.replaced} took the place of another stored value. ` : ''}{' '}
      <Link to="/athletes">Back to the athletes</Link>
    </Alert>
  );
}

/** The first sound rows as they would be stored, and every faulty one by its number. */
interface PreviewProps {
  /** The file as it was read. */
  table: Table;
  /** Which heading holds what. */
  mapping: CsvMapping;
  /** How days with numbers are meant. */
  order: DayOrder;
}

function Preview({ table, mapping, order }: PreviewProps) {
  const reference = useReference();
  const { data } = useAthletesQuery();
  const [send, { data: imported, isLoading, error }] = useImportScreeningsMutation();
  const athletes = useMemo(() => data?.items ?? [], [data]);
  const { rows, faults } = useMemo(
    () => readScreeningRows(reference, athletes, table.rows, mapping, order),
    [reference, athletes, table, mapping, order],
  );
  const [skipping, setSkipping] = useState(false);
  const faulty = new Set(faults.map((fault) => fault.row)).size;
  const name = (id: string) => athletes.find((a) => a.id === id)?.name ?? '';
  if (imported) return <Done imported={imported} />;
  const tooMany = rows.length > MOST;
  return (
    <>
      {faults.length > 0 ? (
        <Alert
          color="copper"
          role="alert"
          title={`${faulty} faulty ${faulty === 1 ? 'row' : 'rows'}: mend the file, or leave ${faulty === 1 ? 'it' : 'them'} out`}
        >
          <Checkbox
            label={`Leave out the ${faulty} faulty ${faulty === 1 ? 'row' : 'rows'} and import the rest`}
            checked={skipping}
            onChange={(event) => setSkipping(event.currentTarget.checked)}
            mb={6}
          />
          <ul className={classes.faults}>
            {faults.map((fault, i) => (
              <li key={i}>
                Row {fault.row}: {fault.message}
              </li>
            ))}
          </ul>
        </Alert>
      ) : null}
      <table className={classes.table} aria-label="Preview">
        <thead>
          <tr>
            {['Athlete', 'Day', 'Test', 'Side', 'Trials', 'Result', 'Pain'].map((h) => (
              <th key={h} scope="col">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, SHOWN).map(({ athleteId, date, result }) => {
            const test = reference.tests.get(result.test);
            const value = test ? resultValue(test, result) : null;
            return (
              <tr key={`${athleteId}/${date}/${result.test}/${result.side}`}>
                <td>{name(athleteId)}</td>
                <td>{dayText(date)}</td>
                <td>{nameOf(reference, result.test)}</td>
                <td>{SIDE_LABEL[result.side]}</td>
                <td className="numeric">{result.trials?.join(', ') ?? ''}</td>
                <td className="numeric">{value === null || !test ? '' : figure(value, test.unit)}</td>
                <td className="numeric">{result.pain?.nrs ?? ''}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <Group mt="sm">
        <Button
          loading={isLoading}
          disabled={(faulty > 0 && !skipping) || rows.length === 0 || tooMany}
          onClick={() => void send({ rows })}
        >
          Import {rows.length} rows
        </Button>
        <Text size="sm" c="var(--muted)">
          {rows.length > SHOWN ? `${rows.length - SHOWN} more rows below the preview. ` : ''}
          {tooMany ? `At most ${MOST} rows at once; split the file.` : 'All of these are stored, or none.'}
        </Text>
      </Group>
      <Refusal error={error} mt="sm" />
    </>
  );
}

/** Screenings from a CSV file: choose it, say which column is what, look, import all or nothing; and the way out again. */
export function ImportPage() {
  const [table, setTable] = useState<Table | null>(null);
  const [mapping, setMapping] = useState<CsvMapping>(guessMapping([]));
  const [unreadable, setUnreadable] = useState('');
  const [order, setOrder] = useState<DayOrder>('day-first');
  const reset = useRef<() => void>(null);
  const take = (file: File | null) => {
    setTable(null);
    setUnreadable('');
    if (!file) return;
    readFile(file).then(
      (read) => {
        setTable(read);
        setMapping(guessMapping(read.columns));
      },
      () => setUnreadable('The file cannot be read; it should be text with a heading row and commas.'),
    );
  };
  const missing = table ? missingFields(mapping) : [];
  return (
    <div className={classes.page}>
      <Title order={1} size={26}>
        Screenings from and to a file
      </Title>
      <Allowed least="assistant">
        <section className={`card ${classes.card}`} aria-labelledby="import-title">
          <Title order={2} size={19} id="import-title">
            Import
          </Title>
          <Text size="sm" c="var(--muted)" mb="xs">
            A CSV file with a heading row: one row per athlete, day, test and side, with up to five trials.
            Athletes and tests by name.{' '}
            <a href={TEMPLATE} download="screenings-template.csv">
              A file to start from
            </a>
          </Text>
          <FileInput
            label="CSV file"
            placeholder="choose a file"
            accept=".csv,text/csv"
            leftSection={<IconUpload size={16} />}
            maw={360}
            clearable
            resetRef={reset}
            // The same name chosen again is read again: it may have been mended.
            onClick={() => reset.current?.()}
            onChange={take}
          />
          {unreadable ? (
            <Text c="var(--danger)" role="alert">
              {unreadable}
            </Text>
          ) : null}
          {table ? (
            <div className={classes.steps}>
              <Text size="sm">
                {table.rows.length} rows, {table.columns.length} columns. Which column is what?
              </Text>
              <Select
                size="xs"
                w={260}
                label="Days such as 3/4/2027"
                allowDeselect={false}
                data={[
                  { value: 'day-first', label: '3 April: the day comes first' },
                  { value: 'month-first', label: '4 March: the month comes first' },
                ]}
                value={order}
                onChange={(next) => setOrder((next ?? 'day-first') as DayOrder)}
              />
              <Mapping columns={table.columns} mapping={mapping} onChange={setMapping} />
              {missing.length > 0 ? (
                <Alert color="copper" role="alert">
                  Choose the column of: {missing.join(', ')}.
                </Alert>
              ) : (
                <Preview table={table} mapping={mapping} order={order} />
              )}
            </div>
          ) : null}
        </section>
      </Allowed>
      <Allowed least="clinician">
        <section className={`card ${classes.card}`} aria-labelledby="export-title">
          <Title order={2} size={19} id="export-title">
            Export
          </Title>
          <Text size="sm" c="var(--muted)" mb="xs">
            Every screening of the practice in the same columns. It holds health data: keep it where your
            local rules allow.
          </Text>
          <Button
            component="a"
            href="/api/v1/screenings.csv"
            variant="light"
            leftSection={<IconDownload size={16} />}
          >
            Export all screenings
          </Button>
        </section>
      </Allowed>
    </div>
  );
}
