import type { api } from '../../contract';
import type { BodyOf } from '../../contract/endpoint';
import type { WorkTemplate } from '../../contract/works';
import { completeText } from '../../core/forms';
import { maySetUp, readsDesk } from '../../core/rights';
import { adviseTemplate } from '../../core/works';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { appendSetting } from '../journal/append';
import type { Changing, Viewing } from '../unitOfWork';
import type { WorkTemplateRow } from './model';
import { readPast } from './reckon';

const NOTHING = { en: '', pt: '' };

/** What a service of changes fills in as long as nobody has said anything else. */
const blank = (serviceId: string): WorkTemplateRow => ({
  ...{ serviceId, isStandard: false, minutes: 60, why: NOTHING, test: NOTHING, takeBack: NOTHING },
  ...{ thingIds: [], version: 0 },
});

/** What a change can be begun from: the services of changes that are on. */
export async function listTemplates({ listo, viewer }: Viewing): Promise<WorkTemplate[]> {
  if (!readsDesk(viewer)) throw new ProblemError('forbidden');
  const { services, workTemplates } = listo.db.tables;
  const all = await services.find({ kind: 'change', isOn: true }, { order: ['position', 'id'] });
  const rows = await workTemplates.find({});
  return Promise.all(
    all.map(async ({ id, title, description, teamId }) => {
      const row = rows.find(({ serviceId }) => serviceId === id) ?? blank(id);
      const { outcomes, failed, all: count } = await readPast(listo, id);
      return {
        ...{ ...row, title, description, teamId, past: { failed, all: count } },
        advice: adviseTemplate(outcomes, row.isStandard),
        maySet: maySetUp(viewer, teamId),
      };
    }),
  );
}

/** Says what a template fills in, and whether its changes are agreed to beforehand. */
export function setTemplate(
  { listo, viewer, actor }: Changing,
  serviceId: string,
  { version, ...body }: BodyOf<typeof api.works.setTemplate>,
): Promise<{ version: number }> {
  return change(listo, actor, async (tx) => {
    const { services, workTemplates, things } = listo.db.tables;
    const service = await services.findOne({ id: serviceId, kind: 'change' }, tx, true);
    if (!service) throw new ProblemError('notFound');
    if (!maySetUp(viewer, service.teamId)) throw new ProblemError('forbidden');
    const before = (await workTemplates.findOne({ serviceId }, tx, true)) ?? blank(serviceId);
    if (before.version !== version) throw new ProblemError('stale');
    const found = await things.find({ id: body.thingIds }, { transaction: tx, attributes: ['id'] });
    if (found.length < new Set(body.thingIds).size)
      throw new ProblemError('fieldsNotValid', { fields: [{ field: 'things', code: 'notAChoice' }] });
    const [why, test, takeBack] = [body.why, body.test, body.takeBack].map(completeText) as [
      WorkTemplateRow['why'],
      WorkTemplateRow['test'],
      WorkTemplateRow['takeBack'],
    ];
    const row: WorkTemplateRow = { ...body, why, test, takeBack, serviceId, version: version + 1 };
    const updates = ['isStandard', 'minutes', 'why', 'test', 'takeBack', 'thingIds', 'version'] as const;
    await workTemplates.insertAll([row], tx, { updates: [...updates] });
    const data = { serviceId, isStandard: row.isStandard };
    await appendSetting({ listo, tx }, { by: viewer.id, type: 'workTemplateSet', data });
    return { version: version + 1 };
  });
}
