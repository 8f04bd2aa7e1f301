import { Loader } from '@mantine/core';
import { useEffect, useState } from 'react';
import { Navigate, Outlet, useLocation } from 'react-router';
import { openKept } from '../../app/kept/store.ts';
import { useAppSelector } from '../../app/store.ts';
import { useMeQuery } from './authEndpoints.ts';

/** Lets signed-in clinicians through; others go to the door and come back to where they wanted to be. */
export function RequireSignIn() {
  const { me, checked } = useAppSelector((state) => state.session);
  const location = useLocation();
  const [opened, setOpened] = useState<string | null>(null);
  useMeQuery(undefined, { skip: checked });
  useEffect(() => {
    if (!me) return;
    const { id } = me.clinician;
    // What schemas say of a typed value is put into words here: the door has no schema, and loads without them.
    const words = import('@yonder/core/schemas').then(({ speakPlainly }) => speakPlainly());
    void Promise.all([openKept(id), words]).then(() => setOpened(id));
  }, [me]);
  if (!checked) return <Loader m="xl" aria-label="Loading" />;
  if (!me) return <Navigate to="/sign-in" state={{ from: location.pathname + location.search }} replace />;
  // What was typed earlier is there before any page asks for it.
  if (opened !== me.clinician.id) return <Loader m="xl" aria-label="Loading" />;
  return <Outlet />;
}
