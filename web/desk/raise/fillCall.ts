import { listWords } from '../../../core/similar';

export { fillIn } from '../../../core/forms';

/** Services whose words fit some others best, the best first. */
export function findByWords(services: { id: string; text: string }[], said: string): string[] {
  const words = [...listWords(said).keys()];
  if (words.length === 0) return [];
  return services
    .map(({ id, text }) => {
      const own = listWords(text);
      return { id, fits: words.filter((word) => own.has(word)).length };
    })
    .filter(({ fits }) => fits > 0)
    .sort((one, other) => other.fits - one.fits)
    .map(({ id }) => id);
}
