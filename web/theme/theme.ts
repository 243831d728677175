import { createTheme, type MantineColorsTuple } from '@mantine/core';
import i18next from 'i18next';

const sea: MantineColorsTuple = [
  '#eef6f4',
  '#ddebe7',
  '#b9d8d0',
  '#92c4b8',
  '#6fb0a2',
  '#3f9484',
  '#1d7a6c',
  '#0e6a5e',
  '#0b574d',
  '#08463e',
];

/** The dark scheme's surfaces from what is written down to what lies lowest, as in colours.css. */
const dark: MantineColorsTuple = [
  '#ece8df',
  '#c9cdd3',
  '#a5acb7',
  '#76839a',
  '#4d5765',
  '#2e3744',
  '#222932',
  '#1b2129',
  '#161b22',
  '#0f1318',
];

/** What closes something says so, in the language at hand. */
const closing = {
  get 'aria-label'() {
    return i18next.t('common/close');
  },
};

/** Our one accent for what can be acted on; ochre and brick are kept for time and live in colours.css. */
export const theme = createTheme({
  colors: { sea, dark },
  primaryColor: 'sea',
  primaryShade: { light: 7, dark: 7 },
  autoContrast: true,
  fontFamily: "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif",
  fontFamilyMonospace: "'Atkinson Hyperlegible Next Variable', monospace",
  headings: { fontFamily: "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif", fontWeight: '700' },
  defaultRadius: 4,
  respectReducedMotion: true,
  components: {
    Button: { defaultProps: { size: 'sm' }, styles: { root: { transitionDuration: '100ms' } } },
    Notification: { defaultProps: { closeButtonProps: closing } },
    Modal: {
      defaultProps: {
        closeButtonProps: closing,
        transitionProps: { duration: 100 },
        radius: 4,
        centered: false,
      },
    },
    Popover: { defaultProps: { transitionProps: { duration: 80 } } },
    Tooltip: { defaultProps: { openDelay: 300, transitionProps: { duration: 80 } } },
  },
});
