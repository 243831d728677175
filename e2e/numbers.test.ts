import type { Condition } from '../core/conditions';
import { listBehind, TEAM_NUMBER_NAMES } from '../core/figures';
import { GIVEN_LISTS, GIVEN_NAMES, LIST_FIELD_NAMES, type GivenName } from '../core/worklist';
import { GROUPINGS, STANDINGS } from '../contract/complianceNames';
import { listBehind as listClocks, readCompliance } from '../server/compliance/read';
import { readToday } from '../server/figures/today';
import { findPersonAsViewer, type SignedIn } from '../server/sessions/viewer';
import { holdsOneValue } from '../server/worklists/columns';
import { readLoad } from '../server/worklists/load';
import { readPage } from '../server/worklists/page';
import { readShares } from '../server/worklists/shares';
import { click, see } from './harness/browser';
import { demoSuite } from './harness/suite';

/** Each number that a page shows opens a list; here every one of the demo has exactly as many rows as it says. */
const { app, browser } = demoSuite('numbers');
const PART = 500;
let viewers: SignedIn[];
beforeAll(async () => {
  const found = await Promise.all(['rui', 'bia', 'sofia'].map((id) => findPersonAsViewer(app.listo, id)));
  viewers = found.map((viewer) => viewer!);
});

/** The rows of a list, counted page by page as one scrolls through it. */
async function countRows(viewer: SignedIn, list: GivenName, where: Condition | null): Promise<number> {
  const seen = { definition: GIVEN_LISTS[list], where, order: 'newest' as const, groupBy: 'none' as const };
  let rows = 0;
  let after: string | undefined;
  do {
    const page = await readPage({ listo: app.listo, viewer }, seen, { after, limit: PART });
    rows += page.rows.length;
    after = page.next ?? undefined;
  } while (after !== undefined);
  return rows;
}

test('the numbers of each team on the first page', async () => {
  let late = 0;
  for (const viewer of viewers)
    for (const team of await readToday(app.listo, viewer))
      for (const name of TEAM_NUMBER_NAMES) {
        const { list, where } = listBehind(name, [team.id]);
        const rows = await countRows(viewer, list, where);
        expect({ team: team.id, name, rows }).toEqual({ team: team.id, name, rows: team[name] });
        if (name === 'late') late += rows;
      }
  expect(late).toBeGreaterThan(0);
});

test('the shares of a list, by everything that it can be parted by', async () => {
  const viewer = viewers[0]!;
  const by = LIST_FIELD_NAMES.filter(
    (name) => holdsOneValue(name) && !/At$|^title$|^number$|^place$|^waitsSince$/.test(name),
  );
  for (let i = 0; i < by.length; i += 8) {
    const { fields } = await readShares({ listo: app.listo, viewer }, GIVEN_LISTS.teams, {
      where: null,
      by: by.slice(i, i + 8),
    });
    for (const { field, values } of fields)
      for (const { value, count } of values.slice(0, 4)) {
        const isFlag = ['answered', 'goesFirst', 'isConfidential'].includes(field);
        const where = {
          ...{ field, op: 'is' },
          value: isFlag ? Boolean(Number(value)) : value,
        } as Condition;
        expect({ field, value, rows: await countRows(viewer, 'teams', where) }).toEqual({
          field,
          value,
          rows: count,
        });
      }
  }
});

test('what each person carries, what of it is late, and what is due today', async () => {
  for (const viewer of viewers) {
    const { people } = await readLoad({ listo: app.listo, viewer }, GIVEN_LISTS.teams, null);
    for (const { person, states, past, dues } of people.slice(0, 8)) {
      const of = (also: Condition): Condition => ({
        all: [{ field: 'assigneeId', op: 'is', value: person?.id ?? null }, also],
      });
      const flag = (field: string): Condition => of({ field, op: 'is', value: true });
      expect([person?.id, past, dues[0]]).toEqual([
        person?.id,
        await countRows(viewer, 'teams', flag('isLate')),
        await countRows(viewer, 'teams', flag('isDueToday')),
      ]);
      for (const [state, count] of Object.entries(states))
        expect([
          state,
          await countRows(viewer, 'teams', of({ field: 'state', op: 'is', value: state })),
        ]).toEqual([state, count]);
    }
  }
});

test('how many clocks of each target were in time, late and under way, in all and parted', async () => {
  const viewer = viewers[1]!;
  const now = app.now();
  const targets = await app.listo.db.tables.targets.find({});
  for (const { id } of targets) {
    const period = { targetId: id, from: now - 86_400_000 * 20, to: now };
    const { all, groups } = await readCompliance(app.listo, viewer, period);
    for (const standing of STANDINGS) {
      const { rows } = await listClocks(app.listo, viewer, {
        which: { ...period, standing },
        limit: 100_000,
      });
      expect([id, standing, rows.length]).toEqual([id, standing, all[standing]]);
      for (const by of GROUPINGS)
        for (const group of groups[by]) {
          const behind = await listClocks(app.listo, viewer, {
            which: { ...period, by, key: group.key, standing },
            limit: 100_000,
          });
          expect([id, by, group.key, standing, behind.rows.length]).toEqual([
            id,
            by,
            group.key,
            standing,
            group[standing],
          ]);
        }
    }
  }
});

test('the sums at the head of the first page lead to what they count', async () => {
  const rui = await browser.open('rui', '/desk');
  for (const name of ['late', 'dueToday'] as const) {
    await rui.waitForSelector(`[data-sum="${name}"]`);
    const said = await rui.$eval(`[data-sum="${name}"]`, ({ textContent }) =>
      Number(/\d+/.exec(textContent)![0]),
    );
    const shown = await rui.$eval(`[data-sum="${name}"]`, ({ textContent }) => textContent);
    await click(rui, shown, 'link');
    const { list, where } = listBehind(
      name,
      viewers[0]!.teams.map(({ teamId }) => teamId),
    );
    await rui.waitForFunction((path) => location.pathname === path, {}, `/desk/${list}`);
    expect(await countRows(viewers[0]!, list, where)).toBe(said);
    if (said > 0) await see(rui, new RegExp(`${said} `));
    await rui.goBack();
  }
  expect(GIVEN_NAMES).toContain('dueToday');
});
