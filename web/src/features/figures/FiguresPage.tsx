import { Select, Tabs, Text, TextInput, Title } from '@mantine/core';
import { IconSearch } from '@tabler/icons-react';
import { REGIONS } from '@yonder/core/domain';
import type { Test } from '@yonder/core/reference';
import { REGION_LABEL } from '@yonder/core/words';
import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { useReference } from '../../app/reference.tsx';
import { DoseShares } from './DoseShares.tsx';
import { FigureCard } from './FigureCard.tsx';
import classes from './Figures.module.css';
import { useFiguresQuery } from './figureEndpoints.ts';
import { OwnTasks } from './OwnTasks.tsx';
import { OwnTests } from './OwnTests.tsx';
import { PainLimits } from './PainLimits.tsx';

function TestPicker({
  tests,
  picked,
  onPick,
}: {
  tests: readonly Test[];
  picked: string;
  onPick: (id: string) => void;
}) {
  const { data } = useFiguresQuery();
  const edited = new Set(data?.edits.filter((e) => e.ended === null).map((e) => e.test));
  return (
    <ol className={`card ${classes.tests}`} aria-label="Tests">
      {tests.map((test) => (
        <li key={test.id}>
          <button
            type="button"
            aria-current={test.id === picked || undefined}
            onClick={() => onPick(test.id)}
          >
            <span>
              {test.name} {edited.has(test.id) ? <span className={classes.edited}>edited</span> : null}
            </span>
            <span className="muted">
              {REGION_LABEL[test.region]} · {test.confidence} confidence
            </span>
          </button>
        </li>
      ))}
      {tests.length === 0 ? <li className="muted">No test of that name.</li> : null}
    </ol>
  );
}

function Figures() {
  const reference = useReference();
  const [search, setSearch] = useSearchParams();
  const [text, setText] = useState('');
  const [region, setRegion] = useState<string | null>(null);
  const tests = useMemo(
    () =>
      reference.data.tests.filter(
        (test) =>
          !test.derivedFrom &&
          (region === null || test.region === region) &&
          test.name.toLowerCase().includes(text.toLowerCase()),
      ),
    [reference, text, region],
  );
  const wanted = search.get('test');
  const test = tests.find((t) => t.id === wanted) ?? tests[0];
  return (
    <div className={classes.columns}>
      <div className={classes.side}>
        <TextInput
          aria-label="Search tests"
          placeholder="Test"
          leftSection={<IconSearch size={16} />}
          value={text}
          onChange={(e) => setText(e.currentTarget.value)}
        />
        <Select
          aria-label="Region"
          placeholder="All regions"
          clearable
          data={REGIONS.map((r) => ({ value: r, label: REGION_LABEL[r] }))}
          value={region}
          onChange={setRegion}
        />
        <TestPicker
          tests={tests}
          picked={test?.id ?? ''}
          onPick={(id) => setSearch({ test: id }, { replace: true })}
        />
      </div>
      {test ? <FigureCard key={test.id} test={test} /> : null}
    </div>
  );
}

/** The practice's own figures: every cut-off, error and demand can be replaced, with a reason and a way back. */
export function FiguresPage() {
  return (
    <div className={classes.page}>
      <Title order={1} size={26}>
        Figures
      </Title>
      <Text c="var(--muted)" mb="sm">
        Every figure is a default from general professional knowledge, with its confidence; citations are
        recalled and not verified. Yours go in their place, marked, dated and with a way back.
      </Text>
      <Tabs defaultValue="tests" keepMounted={false}>
        <Tabs.List mb="sm">
          <Tabs.Tab value="tests">Tests</Tabs.Tab>
          <Tabs.Tab value="own-tests">Own tests</Tabs.Tab>
          <Tabs.Tab value="tasks">Own sport tasks</Tabs.Tab>
          <Tabs.Tab value="dose">Dose</Tabs.Tab>
          <Tabs.Tab value="pain">Pain limits</Tabs.Tab>
        </Tabs.List>
        <Tabs.Panel value="tests">
          <Figures />
        </Tabs.Panel>
        <Tabs.Panel value="own-tests">
          <OwnTests />
        </Tabs.Panel>
        <Tabs.Panel value="tasks">
          <OwnTasks />
        </Tabs.Panel>
        <Tabs.Panel value="dose">
          <DoseShares />
        </Tabs.Panel>
        <Tabs.Panel value="pain">
          <PainLimits />
        </Tabs.Panel>
      </Tabs>
    </div>
  );
}
