import { useState } from 'react';
import { SegmentedControl } from '@mantine/core';
import type { ResultRow, ScreeningRow } from '@yonder/core/contracts';
import { resultValue } from '@yonder/core/measure';
import type { Test } from '@yonder/core/reference';
import { decimalsOf, duration, number, REGION_LABEL, unitWord } from '@yonder/core/words';
import { sidesOfTest } from '@yonder/core/findings';
import { useReference } from '../../app/reference.tsx';
import { UnitInput } from '../../components/UnitInput.tsx';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import classes from './Screen.module.css';
import { askedByTask } from './testsOfRegion.ts';
import { BATTERY_MINUTES } from './useBattery.ts';
import type { BatteryScope } from './useBattery.ts';

function valueText(test: Test, row: ResultRow | undefined): string {
  const value = row ? resultValue(test, row) : null;
  return value === null ? '–' : number(value, decimalsOf(test.unit));
}

/** How long the proposed visit takes, and how often the athlete has to move. */
function BatteryHead({ scope }: { scope: BatteryScope }) {
  const { battery, minutes } = scope;
  // Letter by letter a number can be out of bounds: it stays as it is typed.
  const [typed, setTyped] = useState<number | null>(minutes);
  const { tests, totalSeconds, positionChanges, kitChanges, leftOut } = battery;
  return (
    <div className={classes.batteryHead}>
      <UnitInput
        size="xs"
        w={110}
        label="Minutes on hand"
        unit="min"
        min={BATTERY_MINUTES.min}
        max={BATTERY_MINUTES.max}
        value={typed}
        error={
          typed !== null && typed >= BATTERY_MINUTES.min && typed <= BATTERY_MINUTES.max ? null : '3 to 120'
        }
        onChange={(value) => {
          setTyped(value);
          if (value !== null && value >= BATTERY_MINUTES.min && value <= BATTERY_MINUTES.max)
            scope.setMinutes(value);
        }}
      />
      <div>
        <b>{tests.length} tests</b>, {duration(totalSeconds)}; {positionChanges} changes of position,{' '}
        {kitChanges} of kit.
        {leftOut.length > 0 ? (
          <span className="muted"> {leftOut.length} more would tell something.</span>
        ) : null}
      </div>
    </div>
  );
}

interface Props {
  /** In the order they are done. */
  tests: readonly Test[];
  /** The one open beside the list. */
  active: string;
  /** The visit of the day; null until the first value opens it. */
  visit: ScreeningRow | null;
  /** A region, or the battery proposed for the minutes. */
  scope: BatteryScope;
  /** A test was pressed. */
  onPick: (test: string) => void;
}

/** The tests of the region, or of the battery proposed for the visit, with what was entered. */
export function TestList({ tests, active, visit, scope, onPick }: Props) {
  const reference = useReference();
  const { case: input } = useWorkspace();
  const seconds = new Map(scope.battery.tests.map((t) => [t.test, t.seconds]));
  return (
    <div className={classes.scope}>
      <SegmentedControl
        size="xs"
        aria-label="Tests to do"
        value={scope.scope}
        onChange={(value) => scope.setScope(value === 'battery' ? 'battery' : 'region')}
        data={[
          { value: 'region', label: 'This region' },
          { value: 'battery', label: 'Proposed visit' },
        ]}
      />
      <div className="card">
        {scope.scope === 'battery' ? <BatteryHead scope={scope} /> : null}
        <ol
          className={classes.list}
          aria-label={scope.scope === 'battery' ? 'Tests of the visit' : 'Tests of the region'}
        >
          {tests.map((test) => {
            const rows = sidesOfTest(test).map((side) =>
              visit?.results.find((r) => r.test === test.id && r.side === side),
            );
            const done = rows.every(Boolean);
            return (
              <li key={test.id}>
                <button
                  type="button"
                  aria-current={test.id === active || undefined}
                  data-done={done || undefined}
                  onClick={() => onPick(test.id)}
                >
                  <span className={classes.testName}>
                    {test.name}
                    {scope.scope === 'region' && askedByTask(reference, input, test.id) ? (
                      <span className={classes.asked}>task</span>
                    ) : null}
                  </span>
                  {scope.scope === 'battery' ? (
                    <span className={classes.where}>
                      {REGION_LABEL[test.region]} · {test.position.replaceAll('-', ' ')} ·{' '}
                      {duration(seconds.get(test.id) ?? test.timeSeconds)}
                    </span>
                  ) : null}
                  <span className={classes.values}>
                    {rows.some(Boolean)
                      ? `${rows.map((row) => valueText(test, row)).join(' | ')} ${unitWord(test.unit)}`
                      : ''}
                  </span>
                </button>
              </li>
            );
          })}
          {tests.length === 0 ? (
            <li className="muted">Nothing is open enough to be worth the time; pick a region instead.</li>
          ) : null}
        </ol>
      </div>
    </div>
  );
}
