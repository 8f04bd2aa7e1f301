import { createTheme } from '@mantine/core';
import type { CSSVariablesResolver, MantineColorsTuple } from '@mantine/core';

/** Left side and primary actions: deep teal. */
const teal: MantineColorsTuple = [
  '#e9f4f4',
  '#d3e6e7',
  '#a6cdcf',
  '#77b3b6',
  '#4f9ba0',
  '#348a90',
  '#1f7279',
  '#17646b',
  '#0f545a',
  '#06434a',
];

/** Right side and cautions: copper. */
const copper: MantineColorsTuple = [
  '#fdf2ea',
  '#f6e2d3',
  '#eac3a4',
  '#dfa272',
  '#d58648',
  '#c9722f',
  '#b25f20',
  '#9a5019',
  '#7f4013',
  '#66320c',
];

/** Lists are drawn when they are opened: thousands of hidden options on a page cost every key that is pressed. */
const drawnWhenOpened = { defaultProps: { comboboxProps: { keepMounted: false } } };

export const theme = createTheme({
  primaryColor: 'teal',
  primaryShade: { light: 7, dark: 7 },
  colors: { teal, copper },
  fontFamily: "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif",
  fontFamilyMonospace: "'Atkinson Hyperlegible Next Variable', monospace",
  headings: { fontFamily: "'Bricolage Grotesque Variable', system-ui, sans-serif", fontWeight: '650' },
  defaultRadius: 'md',
  cursorType: 'pointer',
  components: {
    Button: { defaultProps: { size: 'sm' } },
    Select: drawnWhenOpened,
    MultiSelect: drawnWhenOpened,
    TagsInput: drawnWhenOpened,
    Tooltip: {
      defaultProps: { withArrow: true, openDelay: 300, events: { hover: true, focus: true, touch: true } },
    },
    // A spinner is said aloud: a name without a role would not be.
    Loader: { defaultProps: { role: 'status' } },
    Notification: { defaultProps: { closeButtonProps: { 'aria-label': 'Close message' } } },
    // Locking the scroll would inject a style tag that the content policy refuses.
    Modal: {
      defaultProps: { closeButtonProps: { 'aria-label': 'Close' }, centered: true, lockScroll: false },
    },
    Alert: { defaultProps: { closeButtonLabel: 'Close' } },
  },
});

/** The library's quiet text is too quiet on paper: it takes our own colours, which change with the scheme. */
const quiet = {
  '--mantine-color-dimmed': 'var(--muted)',
  '--mantine-color-placeholder': 'var(--muted)',
  '--mantine-color-error': 'var(--danger)',
};
export const cssVariablesResolver: CSSVariablesResolver = () => ({
  variables: {},
  light: quiet,
  dark: quiet,
});
