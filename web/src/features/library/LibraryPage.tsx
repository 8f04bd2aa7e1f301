import { Button, Group, Select, Text, TextInput, Title } from '@mantine/core';
import { IconDownload, IconPlus, IconSearch } from '@tabler/icons-react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { REGIONS } from '@yonder/core/domain';
import { kitWords } from '@yonder/core/formats';
import { kitText } from '@yonder/core/reference';
import type { Drill, Reference } from '@yonder/core/reference';
import { CATEGORY_LABEL, kindText, nameOf, REGION_LABEL } from '@yonder/core/words';
import { useMemo, useRef } from 'react';
import { Link, useSearchParams } from 'react-router';
import { Allowed } from '../../app/Allowed.tsx';
import { useReference } from '../../app/reference.tsx';
import { useFiguresQuery } from '../figures/figureEndpoints.ts';
import { Thumb } from '../picture/Thumb.tsx';
import { DrillDetail } from './DrillDetail.tsx';
import { FILTER_KEYS, filterDrills, readFilter, TOP_LEVEL } from './drillFilter.ts';
import { ImportDrills } from './ImportDrills.tsx';
import classes from './Library.module.css';

const ROW_PX = 56;

type FilterKey = (typeof FILTER_KEYS)[number];

/** The choices of each filter. */
function choices(
  reference: Reference,
): Record<FilterKey, { label: string; data: { value: string; label: string }[] }> {
  const positions = [...new Set(reference.data.drills.map((d) => d.position))].sort();
  const plain = (value: string) => ({ value, label: value.replaceAll('-', ' ') });
  const levels = Array.from({ length: TOP_LEVEL }, (_, i) => i + 1);
  return {
    region: { label: 'Region', data: REGIONS.map((r) => ({ value: r, label: REGION_LABEL[r] })) },
    restriction: {
      label: 'Restriction',
      data: reference.data.restrictions.map((r) => ({ value: r.id, label: r.name })),
    },
    category: {
      label: 'Kind',
      data: Object.entries(CATEGORY_LABEL).map(([value, label]) => ({ value, label })),
    },
    kit: {
      label: 'Kit',
      data: [{ value: 'none', label: 'without any' }, ...[...kitWords(reference)].sort().map(plain)],
    },
    position: { label: 'Position', data: positions.map(plain) },
    level: {
      label: 'Level',
      data: levels.map((n) => ({
        value: String(n),
        label: n === TOP_LEVEL ? `level ${n} and above` : `level ${n}`,
      })),
    },
    pattern: {
      label: 'Action',
      data: reference.data.patterns.map(({ id, name }) => ({ value: id, label: name })),
    },
    whose: {
      label: 'Whose',
      data: [
        { value: 'own', label: 'the practice’s own' },
        { value: 'archived', label: 'archived' },
      ],
    },
  };
}

function Filters() {
  const reference = useReference();
  const [search, setSearch] = useSearchParams();
  const all = useMemo(() => choices(reference), [reference]);
  const put = (key: string, value: string | null) => {
    if (value) search.set(key, value);
    else search.delete(key);
    setSearch(search, { replace: true });
  };
  return (
    <Group gap={6} className={classes.filters}>
      <TextInput
        size="xs"
        w={150}
        aria-label="Search drills"
        placeholder="Drill"
        leftSection={<IconSearch size={14} />}
        value={search.get('q') ?? ''}
        onChange={(e) => put('q', e.currentTarget.value)}
      />
      {FILTER_KEYS.map((key) => (
        <Select
          key={key}
          size="xs"
          w={key === 'restriction' ? 196 : 107}
          aria-label={all[key].label}
          placeholder={all[key].label}
          clearable
          searchable={all[key].data.length > 8}
          data={all[key].data}
          value={search.get(key)}
          onChange={(value) => put(key, value)}
        />
      ))}
    </Group>
  );
}

function DrillList({
  drills,
  picked,
  onPick,
}: {
  drills: readonly Drill[];
  picked: string;
  onPick: (id: string) => void;
}) {
  const reference = useReference();
  const box = useRef<HTMLDivElement>(null);
  // eslint-disable-next-line react-hooks/incompatible-library -- this component does nothing that would need memoizing
  const rows = useVirtualizer({
    count: drills.length,
    getScrollElement: () => box.current,
    estimateSize: () => ROW_PX,
    overscan: 8,
  });
  return (
    <div ref={box} className={`card ${classes.list}`}>
      <ol aria-label="Drills" style={{ height: rows.getTotalSize() }}>
        {rows.getVirtualItems().map(({ index, start }) => {
          const drill = drills[index];
          if (!drill) return null;
          return (
            <li key={drill.id} style={{ transform: `translateY(${start}px)` }}>
              <button
                type="button"
                aria-current={drill.id === picked || undefined}
                onClick={() => onPick(drill.id)}
              >
                <Thumb drill={drill} />
                <span>
                  <b>
                    {drill.name} {drill.own ? <span className={classes.own}>own</span> : null}
                  </b>
                  <span className="muted">
                    {kindText(reference, drill)} · {nameOf(reference, drill.ladder)} {drill.level} ·{' '}
                    {kitText(drill) || 'no kit'}
                  </span>
                </span>
              </button>
            </li>
          );
        })}
      </ol>
    </div>
  );
}

/** All drills, narrowed down by what they are for and what they need; each with its ladder. */
export function LibraryPage() {
  const reference = useReference();
  const { data: figures } = useFiguresQuery();
  const [search, setSearch] = useSearchParams();
  const drills = useMemo(() => filterDrills(reference, readFilter(search)), [reference, search]);
  const wanted = search.get('drill');
  const drill = reference.drills.get(wanted ?? '') ?? drills[0];
  const pick = (id: string) => {
    search.set('drill', id);
    setSearch(search, { replace: true });
  };
  return (
    <div className={classes.page}>
      <Group justify="space-between" align="flex-end">
        <Title order={1} size={26}>
          Library{' '}
          <span className={classes.count} role="status">
            {drills.length} of {reference.data.drills.length} drills
          </span>
        </Title>
        <Group gap={6}>
          <Allowed least="clinician">
            <ImportDrills />
          </Allowed>
          <Button
            component="a"
            href="/api/v1/library/drills/export.json"
            download
            variant="default"
            size="xs"
            leftSection={<IconDownload size={15} />}
          >
            Export own
          </Button>
          <Allowed least="clinician">
            <Button component={Link} to="/library/new" size="xs" leftSection={<IconPlus size={15} />}>
              New drill
            </Button>
          </Allowed>
        </Group>
      </Group>
      <Filters />
      <div className={classes.split}>
        {drills.length > 0 ? (
          <DrillList drills={drills} picked={drill?.id ?? ''} onPick={pick} />
        ) : (
          <Text className={`card ${classes.none}`}>No drill passes all filters. Clear one of them.</Text>
        )}
        {drill ? (
          <DrillDetail
            key={drill.id}
            drill={drill}
            row={figures?.drills.find((row) => row.drill.id === drill.id)}
            onPick={pick}
          />
        ) : null}
      </div>
    </div>
  );
}
