import { cleanup } from '@testing-library/react';
import { afterEach, beforeEach } from 'vitest';
import { api } from '../app/api.ts';
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

beforeEach(() => {
  localStorage.clear();
  store.dispatch(api.util.resetApiState());
});
afterEach(cleanup);
