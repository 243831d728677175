/** Some letters as part of a pattern for LIKE, standing for themselves. */
export const escapeLike = (text: string): string => text.replace(/[\\%_]/g, '\\$&');
