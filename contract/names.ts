/** Counts are bounded; beyond, `isMore` says so. */
export const COUNT_LIMIT = 1000;

/** The index by where one is. */
export const PLACES = ['gate', 'onBoard', 'desk', 'building', 'me', 'joining', 'things', 'money'] as const;
/** Where in the catalogue something stands. */
export type Place = (typeof PLACES)[number];

/** Whether someone takes work, as they say themselves. */
export const PRESENCES = ['available', 'busy', 'away'] as const;
/** Whether an agent can be given work. */
export type Presence = (typeof PRESENCES)[number];

/** The areas that there are to enter. */
export const AREAS = ['ask', 'desk', 'rooms', 'estate', 'knowledge', 'measures', 'workshop'] as const;

/** The most bytes a file may have. */
export const FILE_LIMIT = 25 * 1024 * 1024;

/** What may be sent, by content: media type and the ending it is stored with. */
export const FILE_TYPES: Record<string, string> = {
  'image/png': 'png',
  'image/jpeg': 'jpg',
  'image/gif': 'gif',
  'image/webp': 'webp',
  'image/heic': 'heic',
  'application/pdf': 'pdf',
  'text/plain': 'txt',
  'text/csv': 'csv',
  'application/zip': 'zip',
  'application/vnd.openxmlformats-officedocument.wordprocessingml.document': 'docx',
  'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet': 'xlsx',
  'application/vnd.oasis.opendocument.text': 'odt',
  'application/vnd.oasis.opendocument.spreadsheet': 'ods',
  'video/mp4': 'mp4',
};
