import { useLocalStorage } from '@mantine/hooks';

export type Density = 'roomy' | 'dense';

/** Two lines a row, or one; each person's own choice on this machine. */
export function useDensity(): { density: Density; toggle(): void } {
  const [density, setDensity] = useLocalStorage<Density>({ key: 'listo-density', defaultValue: 'roomy' });
  return { density, toggle: () => setDensity(density === 'dense' ? 'roomy' : 'dense') };
}
