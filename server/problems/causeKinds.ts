import type { CauseKind } from '../../contract/problems';
import { completeText } from '../../core/forms';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import { appendSetting } from '../journal/append';
import type { Changing, Reading } from '../unitOfWork';

const NAME = 'causeKinds';

/** The kinds to begin with; each organisation has its own. */
const TO_BEGIN_WITH: CauseKind[] = [
  { id: 'fault', name: { en: 'A part that failed', pt: 'Uma peça que falhou' } },
  { id: 'program', name: { en: 'A fault in a program', pt: 'Um erro num programa' } },
  { id: 'change', name: { en: 'A change', pt: 'Uma alteração' } },
  { id: 'use', name: { en: 'How it is used', pt: 'A forma de usar' } },
  { id: 'supplier', name: { en: 'A supplier', pt: 'Um fornecedor' } },
  { id: 'unknown', name: { en: 'Not found out', pt: 'Não se descobriu' } },
];

export async function readCauseKinds({ listo, tx }: Reading): Promise<CauseKind[]> {
  const setting = await listo.db.tables.settings.findOne({ name: NAME }, tx);
  return (setting?.value as CauseKind[] | undefined) ?? TO_BEGIN_WITH;
}

/** Sets the kinds of causes. One that problems have stays. */
export function setCauseKinds({ listo, viewer, actor }: Changing, kinds: CauseKind[]): Promise<{ ok: true }> {
  if (!viewer.isAdministrator) throw new ProblemError('forbidden');
  return change(listo, actor, async (tx) => {
    const named = kinds.map(({ id, name }) => ({ id, name: completeText(name) }));
    if (named.some(({ name }) => name.en.trim() === ''))
      throw new ProblemError('fieldsNotValid', { fields: [{ field: 'kinds', code: 'missing' }] });
    const used = await listo.db.select<{ id: string }>(
      'SELECT DISTINCT causeKindId AS id FROM problems WHERE causeKindId IS NOT NULL',
      {},
      tx,
    );
    if (used.some(({ id }) => !named.some((kind) => kind.id === id)))
      throw new ProblemError('fieldsNotValid', { fields: [{ field: 'kinds', code: 'inUse' }] });
    await listo.db.tables.settings.insertAll([{ name: NAME, value: named }], tx, { updates: ['value'] });
    await appendSetting({ listo, tx }, { by: viewer.id, type: 'causeKindsSet', data: {} });
    return OK;
  });
}
