import { Anchor, Button, Group, Menu, Switch } from '@mantine/core';
import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import type { RuleBody, RuleView } from '../../../contract/rules';
import { useMe, useTeams } from '../../api/queries';
import '../../messages/listsWords';
import '../../messages/roomsWords';
import { rulesEn } from '../../messages/rules.en';
import { rulesPt } from '../../messages/rules.pt';
import '../../messages/rulesWords';
import '../../messages/servicesWords';
import { useWords } from '../../messages/useWords';
import { Lost } from '../../ui/Lost';
import { ProblemNote } from '../../ui/ProblemNote';
import { SortableItem, SortableList } from '../../ui/Sortable';
import { useTimes } from '../../ui/useTimes';
import { useNow } from '../../api/clock';
import { Waiting } from '../../ui/Waiting';
import { WorkshopFrame } from '../WorkshopFrame';
import { EMPTY_RULE, READY_RULES, type ReadyName } from './readyRules';
import { RuleEditor } from './RuleEditor';
import classes from './Rules.module.css';
import { NewOrder } from './NewOrder';
import { useRules, useSwitchRule } from './useRules';
import { useRuleWords } from './useRuleWords';

const bodyOf = ({ name, teamId, trigger, provided, effects, isLast }: RuleView): RuleBody => ({
  ...{ name, teamId, trigger, provided, effects, isLast },
});

/** What keeps a rule from doing what it says. */
function Fares({ rule, rules }: { rule: RuleView; rules: RuleView[] }) {
  const { t, local } = useWords();
  const { failures, failedWith, isOn, rings, id } = rule;
  const nameOf = (other: string): string => local(rules.find((each) => each.id === other)!.name);
  const said = [
    failures > 0 &&
      t('rules/failing', { count: failures, problem: t(`problems/${failedWith ?? 'unexpected'}`) }),
    failures > 0 && !isOn && t('rules/stopped'),
    ...rings.map((ring) => {
      const others = ring.filter((each) => each !== id);
      return others.length === 0
        ? t('rules/ringAlone')
        : t('rules/ring', { names: others.map(nameOf).join(', ') });
    }),
  ].filter((words) => words !== false);
  return said.map((words) => (
    <span key={words} className={classes.wrong}>
      {words}
    </span>
  ));
}

function Row({ rule, place, rules }: { rule: RuleView; place: number; rules: RuleView[] }) {
  const { t, local } = useWords();
  const { sayRule } = useRuleWords();
  const { data: teams = [] } = useTeams();
  const times = useTimes();
  const now = useNow(60_000);
  const turn = useSwitchRule();
  const { id, isOn, fired, lastAt, mayEdit, teamId } = rule;
  const name = local(rule.name);
  const team = teams.find((each) => each.id === teamId);
  return (
    <SortableItem id={id} className={classes.row} isFixed={!mayEdit} label={t('rules/order', { name })}>
      {(grip) => (
        <>
          {grip}
          <span className={classes.place}>{place}</span>
          <span data-off={!isOn}>
            <Anchor component={Link} to={`/workshop/rules/${id}`} fw={600}>
              {name}
            </Anchor>
            <small>{sayRule(rule)}</small>
            <Fares {...{ rule, rules }} />
          </span>
          <span className={classes.figures}>
            {team ? local(team.name) : t('rules/everyone')}
            <small>
              {fired === 0 ? t('rules/neverFired') : t('rules/fired', { count: fired })}
              {lastAt !== null && `, ${t('rules/last', { when: times.when(lastAt, now) })}`}
            </small>
          </span>
          <Switch
            aria-label={t('rules/on', { name })}
            checked={isOn}
            disabled={!mayEdit || turn.isPending}
            onChange={({ target }) => turn.mutate({ rule, isOn: target.checked })}
          />
        </>
      )}
    </SortableItem>
  );
}

function Begin() {
  const { t } = useWords();
  const navigate = useNavigate();
  return (
    <Group mb="md" gap="xs">
      <Button size="xs" component={Link} to="/workshop/rules/new">
        {t('rules/new')}
      </Button>
      <Menu position="bottom-start">
        <Menu.Target>
          <Button size="xs" variant="default">
            {t('rules/ready')}
          </Button>
        </Menu.Target>
        <Menu.Dropdown mah={460} style={{ overflowY: 'auto' }}>
          {(Object.keys(READY_RULES) as ReadyName[]).map((ready) => (
            <Menu.Item key={ready} onClick={() => void navigate(`/workshop/rules/new?ready=${ready}`)}>
              {t(`rules/readies/${ready}`)}
            </Menu.Item>
          ))}
        </Menu.Dropdown>
      </Menu>
    </Group>
  );
}

function RuleList({ rules }: { rules: RuleView[] }) {
  const { t } = useWords();
  const [order, setOrder] = useState<string[] | null>(null);
  const before = rules.map(({ id }) => id);
  // Rules that came or went meanwhile stand where they are.
  const ids = order?.length === before.length && before.every((id) => order.includes(id)) ? order : before;
  const isMoved = ids.join() !== before.join();
  return (
    <>
      {rules.length === 0 && <p>{t('rules/none')}</p>}
      {isMoved && <NewOrder ids={ids} before={before} onEnd={() => setOrder(null)} />}
      <SortableList ids={ids} onOrder={setOrder}>
        <ol className={classes.list}>
          {ids.map((id, i) => (
            <Row key={id} rule={rules.find((rule) => rule.id === id)!} rules={rules} place={i + 1} />
          ))}
        </ol>
      </SortableList>
    </>
  );
}

/** A rule to begin with: nothing in it yet, or one that is ready, for a team that its writer sets up. */
function useFresh(): RuleBody {
  const me = useMe();
  const { data: teams = [] } = useTeams();
  const [params] = useSearchParams();
  const ready = params.get('ready') as ReadyName | null;
  return useMemo(() => {
    const begun = ready !== null && Object.hasOwn(READY_RULES, ready) ? READY_RULES[ready] : null;
    const name = begun ? { en: rulesEn.readies[ready!], pt: rulesPt.readies[ready!] } : EMPTY_RULE.name;
    const teamId = me.isAdministrator
      ? null
      : (me.teams.find(({ role }) => role !== 'agent')?.teamId ?? null);
    const rule = { ...EMPTY_RULE, ...begun, teamId, name } as unknown as RuleBody;
    return {
      ...rule,
      effects: rule.effects.map((effect) =>
        effect.do === 'give' ? { ...effect, teamId: teams[0]?.id ?? '' } : effect,
      ),
    };
  }, [ready, me, teams]);
}

function Edited({ rules, id }: { rules: RuleView[]; id: string }) {
  const fresh = useFresh();
  const [params] = useSearchParams();
  const rule = rules.find((each) => each.id === id);
  const written = useMemo(() => rule && bodyOf(rule), [rule]);
  if (id !== 'new' && !rule) return <Lost />;
  const key = rule ? `${id} ${rule.version}` : `new ${params.get('ready')}`;
  return <RuleEditor key={key} rule={rule ?? null} fresh={written ?? fresh} />;
}

/** The rules of the organisation, in their order; and one of them. */
export function RulesPage() {
  const { t } = useWords();
  const me = useMe();
  const { id } = useParams();
  const { data, error, refetch } = useRules();
  const { data: teams } = useTeams();
  const mayMake = me.isAdministrator || me.teams.some(({ role }) => role === 'teamAdministrator');
  return (
    <WorkshopFrame lead={t('rules/lead')}>
      {error && <ProblemNote error={error} onRetry={() => void refetch()} />}
      {(!data || !teams) && !error && <Waiting />}
      {data && teams && id === undefined && mayMake && <Begin />}
      {data && teams && id === undefined && <RuleList rules={data} />}
      {data && teams && id !== undefined && (
        <>
          <Anchor component={Link} to="/workshop/rules" size="sm">
            {t('rules/back')}
          </Anchor>
          <Edited key={id} rules={data} id={id} />
        </>
      )}
    </WorkshopFrame>
  );
}
