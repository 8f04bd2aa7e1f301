import 'fake-indexeddb/auto';
import { cleanup, configure } from '@testing-library/react';
import { afterEach, beforeEach } from 'vitest';
import { api } from '../app/api.ts';
import { forget, keptUnder } from '../app/kept/store.ts';
import { store } from '../app/store.ts';

// Whether something is hidden by a style sheet costs more to find out than everything else, and there is none here.
configure({ defaultHidden: true });

// What the interface library asks of a browser and this DOM does not have.
class Nothing {
  observe() {}
  unobserve() {}
  disconnect() {}
}
Object.assign(globalThis, { ResizeObserver: Nothing });
// Files share the window, so what they find missing is put there once and again.
Object.defineProperty(window, 'matchMedia', {
  configurable: true,
  value: () => ({
    matches: false,
    addEventListener() {},
    removeEventListener() {},
    addListener() {},
    removeListener() {},
  }),
});

Object.defineProperty(document, 'fonts', { configurable: true, value: new EventTarget() });

beforeEach(() => {
  for (const { key } of keptUnder('')) forget(key);
  store.dispatch(api.util.resetApiState());
});
afterEach(cleanup);
