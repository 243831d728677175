import type { CSSVariablesResolver } from '@mantine/core';

const shared = {
  '--mantine-color-body': 'var(--paper)',
  '--mantine-color-text': 'var(--ink)',
  '--mantine-color-dimmed': 'var(--muted)',
  '--mantine-color-default': 'var(--raised)',
  '--mantine-color-default-color': 'var(--ink)',
  '--mantine-color-default-border': 'var(--edge)',
  '--mantine-color-default-hover': 'var(--sea-tint)',
  '--mantine-color-placeholder': 'var(--muted)',
  '--mantine-color-error': 'var(--brick)',
  '--mantine-color-anchor': 'var(--sea)',
};

/** The library's colours, taken from ours in both schemes. */
export const variables: CSSVariablesResolver = () => ({ variables: {}, light: shared, dark: shared });
