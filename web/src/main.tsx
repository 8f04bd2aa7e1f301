import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource-variable/bricolage-grotesque';
import '@mantine/core/styles.css';
import '@mantine/notifications/styles.css';
import './app/global.css';
import { MantineProvider } from '@mantine/core';
import { Notifications } from '@mantine/notifications';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { RouterProvider } from 'react-router';
import { router } from './app/router.tsx';
import { store } from './app/store.ts';
import { cssVariablesResolver, theme } from './app/theme.ts';

const nonce = document.querySelector<HTMLMetaElement>('meta[name="csp-nonce"]')?.content ?? '';
const root = document.getElementById('root');
if (!root) throw new Error('the page has no root element');

createRoot(root).render(
  <StrictMode>
    <Provider store={store}>
      <MantineProvider
        theme={theme}
        cssVariablesResolver={cssVariablesResolver}
        defaultColorScheme="auto"
        getStyleNonce={() => nonce}
      >
        {/* Under the runner and dialogs: a message stays as long as the pointer is on it, and would cover their buttons. */}
        <Notifications position="top-right" autoClose={4000} zIndex={140} />
        <RouterProvider router={router} />
      </MantineProvider>
    </Provider>
  </StrictMode>,
);
