/** Whom words call: a person, everyone on the ticket, or everyone of a team. */
export type Mention = { kind: 'person' | 'team'; id: string } | { kind: 'everyone' };

/** "@[name](kind:id)": in CommonMark a link with an @ before it, so that other programs still show the name. */
const MENTION = /@\[([^\]\n]{1,120})\]\((?:(person|team):([\w.-]{1,60})|(everyone))\)/g;

/**
 * A mention as it is written into words. Square brackets in a name would end it early and are left out.
 * @example writeMention({ kind: 'person', id: 'rui' }, 'Rui Bastos') // '@[Rui Bastos](person:rui)'
 */
export function writeMention(mention: Mention, name: string): string {
  const target = mention.kind === 'everyone' ? 'everyone' : `${mention.kind}:${mention.id}`;
  return `@[${name.replace(/[[\]\n]/g, '')}](${target})`;
}

/** The mentions in some words, in their order, each once. */
export function findMentions(text: string): Mention[] {
  const found = new Map<string, Mention>();
  for (const [, , kind, id, everyone] of text.matchAll(MENTION))
    if (everyone) found.set(everyone, { kind: 'everyone' });
    else found.set(`${kind}:${id}`, { kind: kind as 'person' | 'team', id: id! });
  return [...found.values()];
}

/**
 * Words with formatting as plain ones, for mails and places that show no formatting.
 * @example toPlain('**Now**, @[Rui Bastos](person:rui): ![shot.png](file:x1)') // 'Now, @Rui Bastos: [shot.png]'
 */
export function toPlain(text: string): string {
  return text
    .replace(MENTION, '@$1')
    .replace(/!\[([^\]\n]{0,300})\]\([^)\s]{0,2000}\)/g, '[$1]')
    .replace(/\[([^\]\n]{1,300})\]\((https?:[^)\s]{1,2000})\)/g, '$1 ($2)')
    .replace(/(\*\*|__)(?=\S)([^\n]{0,500}?\S)\1/g, '$2');
}
