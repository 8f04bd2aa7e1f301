import { Alert, Loader, Select, Text, Title } from '@mantine/core';
import type { Methods } from '@yonder/core/contracts';
import { optionLabel } from '@yonder/core/words';
import { Link, useSearchParams } from 'react-router';
import { errorText } from '../../app/api.ts';
import { useReference } from '../../app/reference.tsx';
import { useMethodsQuery } from './methodEndpoints.ts';
import type { MethodOwner } from './methodEndpoints.ts';
import { PainPatterns } from './PainPatterns.tsx';
import { SchoolCard } from './SchoolCard.tsx';
import { standingOf } from './standing.ts';
import classes from './Methods.module.css';

/** The place of the pain patterns among the questions. */
const PATTERNS = 'pain-patterns';

interface PathsProps {
  methods: Methods;
  owner: MethodOwner;
  selected: string;
  onSelect: (id: string) => void;
}

/** Every question with what holds of it; a fork marks where another way than the default is taken. */
function Paths({ methods, owner, selected, onSelect }: PathsProps) {
  const reference = useReference();
  return (
    <nav aria-label="Questions">
      <ul className={`card ${classes.paths}`}>
        {reference.data.schools.map((school) => {
          const { now } = standingOf(school, methods);
          return (
            <li key={school.id}>
              <button
                type="button"
                aria-current={selected === school.id || undefined}
                data-level={now.level}
                onClick={() => onSelect(school.id)}
              >
                <span>{school.question}</span>
                <span className={classes.holds}>
                  {now.level === 'default' ? '' : now.level === 'athlete' ? 'own: ' : 'chosen: '}
                  {optionLabel(reference, school.id, now.option)}
                </span>
              </button>
            </li>
          );
        })}
        {owner === null ? (
          <li>
            <button
              type="button"
              aria-current={selected === PATTERNS || undefined}
              onClick={() => onSelect(PATTERNS)}
            >
              <span>What holds where it hurts?</span>
              <span className={classes.holds}>
                {methods.painPatterns ? 'chosen: the practice’s own' : 'as shipped'}
              </span>
            </button>
          </li>
        ) : null}
      </ul>
    </nav>
  );
}

/** Every question on which practitioners differ, with what was chosen for the practice or for one athlete. */
export function SchoolList({ owner }: { owner: MethodOwner }) {
  const reference = useReference();
  const { data, error } = useMethodsQuery(owner);
  const [search, setSearch] = useSearchParams();
  if (error && !data)
    return (
      <Alert color="copper" role="alert">
        {errorText(error)}
      </Alert>
    );
  if (!data) return <Loader aria-label="Loading" />;
  const asked = search.get('school') ?? '';
  const school = reference.schools.get(asked) ?? reference.data.schools[0];
  const patterns = owner === null && asked === PATTERNS;
  const select = (id: string) => {
    search.set('school', id);
    setSearch(search, { replace: true });
  };
  return (
    <div className={classes.columns}>
      <Select
        className={classes.pick}
        label="Question"
        allowDeselect={false}
        data={[
          ...reference.data.schools.map(({ id, question }) => ({ value: id, label: question })),
          ...(owner === null ? [{ value: PATTERNS, label: 'What holds where it hurts?' }] : []),
        ]}
        value={patterns ? PATTERNS : (school?.id ?? null)}
        onChange={(id) => id !== null && select(id)}
      />
      <Paths
        methods={data}
        owner={owner}
        selected={patterns ? PATTERNS : (school?.id ?? '')}
        onSelect={select}
      />
      {patterns ? <PainPatterns /> : null}
      {school && !patterns ? (
        <SchoolCard key={school.id} school={school} methods={data} owner={owner} />
      ) : null}
    </div>
  );
}

/** Methods: where good practitioners differ, what this practice chose, and what each choice does. */
export function MethodsPage() {
  return (
    <div className={classes.page}>
      <Title order={1} size={26}>
        Methods
      </Title>
      <Text size="sm" c="var(--muted)">
        Questions on which good practitioners differ. What is chosen here holds for all athletes; one athlete
        (Story, “Methods”) or one routine (Routine, “Methods”) may go another way. Pain limits of the
        practice’s own stand on <Link to="/figures">Figures</Link>.
      </Text>
      <SchoolList owner={null} />
    </div>
  );
}
