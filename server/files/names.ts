import { FILE_TYPES } from '../../contract/names';
import { findBadText } from '../../core/text';

/** Signs that steer how a name is shown, and that nobody sees: by them a program passes for a picture. */
const UNSEEN = /[\p{Cc}\u200b-\u200f\u202a-\u202e\u2060-\u2069\ufeff]/gu;
const LONGEST = 200;

/**
 * A file's name as it is kept: without folders, and without signs that are not shown or turn the reading round.
 * @example cleanName('exe.\u202egnp.bat', 'image/png') // 'exe.gnp.bat'
 */
export function cleanName(name: string, type: string): string {
  const cleaned = name.replace(UNSEEN, '').replace(/[/\\]/g, '_').slice(-LONGEST).trim();
  return cleaned === '' || findBadText(cleaned) ? `file.${FILE_TYPES[type]}` : cleaned;
}
