import { readFileSync } from 'node:fs';
import type { Learned } from '../core/assistant';
import type { LocalText } from '../core/forms';

/** A matter of the demo's assistant: where its tickets go, what it is called, how people put it. */
export type DemoMatter = Learned & { serviceId: string; name: LocalText };

/** The matters that the demo's assistant begins with. */
export function readMatters(): DemoMatter[] {
  const matters: DemoMatter[] = [];
  for (const line of readFileSync(new URL('./assistant/matters.txt', import.meta.url), 'utf8')
    .trim()
    .split('\n'))
    if (line.startsWith('# ')) {
      const [id = '', serviceId = '', en = '', pt = ''] = line.slice(2).split(' | ');
      matters.push({ id, serviceId, name: { en, pt }, phrasings: [] });
    } else {
      const isPt = line.startsWith('pt: ');
      matters.at(-1)!.phrasings.push({ text: isPt ? line.slice(4) : line, language: isPt ? 'pt' : 'en' });
    }
  return matters;
}
