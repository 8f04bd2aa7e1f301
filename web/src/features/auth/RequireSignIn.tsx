import { Loader } from '@mantine/core';
import { Navigate, Outlet, useLocation } from 'react-router';
import { useAppSelector } from '../../app/store.ts';
import { useMeQuery } from './authEndpoints.ts';

/** Lets signed-in clinicians through; others go to the door and come back to where they wanted to be. */
export function RequireSignIn() {
  const { me, checked } = useAppSelector((state) => state.session);
  const location = useLocation();
  useMeQuery(undefined, { skip: checked });
  if (!checked) return <Loader m="xl" aria-label="Loading" />;
  if (!me) return <Navigate to="/sign-in" state={{ from: location.pathname + location.search }} replace />;
  return <Outlet />;
}
