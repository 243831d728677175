import { findSettings } from '../../../core/setup';
import type { Me } from '../../../contract/session';
import '../../messages/setupWords';
import type { Words } from '../../messages/useWords';
import { listSubjects } from './subjects';
import { SETTINGS, toSetting } from './settings';

/** A setting as it is offered. */
export type FoundSetting = { id: string; name: string; help: string; to: string };

/** The settings that words lead to, of what someone may set up, the best first. */
export function listFound({ t }: Pick<Words, 't'>, me: Me, asked: string): FoundSetting[] {
  const subjects = listSubjects(me);
  if (asked.trim() === '') return [];
  const all = SETTINGS.filter(({ subject }) => subjects.includes(subject)).map((setting) => ({
    ...{ id: setting.id, to: toSetting(setting) },
    ...{ name: t(`setup/settings/${setting.id}/name`), help: t(`setup/settings/${setting.id}/help`) },
    others: t(`setup/settings/${setting.id}/others`),
  }));
  return findSettings(all, asked).map((found) => all.find(({ id }) => id === found)!);
}
