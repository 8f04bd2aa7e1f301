import 'fake-indexeddb/auto';
import { cleanup } from '@testing-library/react';
import { afterEach, beforeEach } from 'vitest';
import { api } from '../app/api.ts';
import { forget, keptUnder } from '../app/kept/store.ts';
import { store } from '../app/store.ts';

// What the interface library asks of a browser and this DOM does not have.
class Nothing {
  observe() {}
  unobserve() {}
  disconnect() {}
}
Object.assign(globalThis, { ResizeObserver: Nothing });
Object.defineProperty(window, 'matchMedia', {
  value: () => ({
    matches: false,
    addEventListener() {},
    removeEventListener() {},
    addListener() {},
    removeListener() {},
  }),
});

Object.defineProperty(document, 'fonts', { value: new EventTarget() });

beforeEach(() => {
  for (const { key } of keptUnder('')) forget(key);
  store.dispatch(api.util.resetApiState());
});
afterEach(cleanup);
