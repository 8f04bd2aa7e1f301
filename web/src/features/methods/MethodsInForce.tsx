import { optionLabel } from '@yonder/core/words';
import { Link, useLocation } from 'react-router';
import { useReference } from '../../app/reference.tsx';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';

function withSchool(search: string, id: string): string {
  const all = new URLSearchParams(search);
  all.set('school', id);
  return `?${all.toString()}`;
}

/** Where a method other than the default acts on what is shown: which, and the way to it. Nothing while defaults hold. */
export function MethodsInForce({ schools }: { schools: readonly string[] }) {
  const reference = useReference();
  const { search } = useLocation();
  const { case: input, athlete } = useWorkspace();
  const own = schools.flatMap((id) => {
    const option = input.schools[id];
    return option && option !== reference.schools.get(id)?.default ? [{ id, option }] : [];
  });
  if (own.length === 0) return null;
  return (
    <>
      {own.map(({ id, option }, i) => (
        <span key={id}>
          {i === 0 ? 'By ' : ', '}
          <Link to={{ pathname: `/athletes/${athlete.id}/methods`, search: withSchool(search, id) }}>
            method
          </Link>
          : {optionLabel(reference, id, option).toLowerCase()}
        </span>
      ))}
      .
    </>
  );
}
