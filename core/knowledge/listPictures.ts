const PICTURE = /!\[[^\]]{0,300}\]\(file:([\w-]{1,40})\)/g;

/**
 * The pictures that stand in an article, by the id of their file, each once.
 * @example listPictures('![Where it is](file:abc)') // ['abc']
 */
export const listPictures = (markdown: string): string[] => [
  ...new Set([...markdown.matchAll(PICTURE)].map(([, id]) => id!)),
];
