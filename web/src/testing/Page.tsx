import { MantineProvider } from '@mantine/core';
import type { ReactNode } from 'react';
import { Provider } from 'react-redux';
import { MemoryRouter } from 'react-router';
import { store } from '../app/store.ts';

/** What every page stands in: store, theme, address. */
export function Page({ children, at = '/' }: { children: ReactNode; at?: string }) {
  return (
    <Provider store={store}>
      <MantineProvider env="test">
        <MemoryRouter initialEntries={[at]}>{children}</MemoryRouter>
      </MantineProvider>
    </Provider>
  );
}
