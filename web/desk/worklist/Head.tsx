import { Button, Menu, Popover } from '@mantine/core';
import { IconChevronDown } from '@tabler/icons-react';
import { memo, useState } from 'react';
import { Link } from 'react-router';
import {
  BOARD_FIELDS,
  GIVEN_NAMES,
  GROUPINGS,
  isGiven,
  ORDERS,
  VIEWS,
  type Order,
} from '../../../core/worklist';
import { useWords } from '../../messages/useWords';
import { InlineSelect } from '../../ui/Inline';
import { useTimes } from '../../ui/useTimes';
import type { Stretch } from './Dayline';
import { ListEditor } from './ListEditor';
import { Narrow } from './Narrow';
import { OrderEditor } from './OrderEditor';
import { useOwnLists, type SeenChange, type SeenList } from './useList';
import classes from './Worklist.module.css';
import { ZoneClocks } from './ZoneClocks';

type Props = {
  list: SeenList;
  total: { count: number; isMore: boolean } | undefined;
  chosen: Stretch | null;
  now: number;
  isNarrow: boolean;
  /** How many rows would move, were they not held in place. */
  waiting: number;
  search: string;
  onSettle(): void;
  onChoose(stretch: null): void;
  onSee(change: SeenChange): void;
};

function exportAddress({ id, where }: SeenList, format: 'csv' | 'xlsx'): string {
  const query = new URLSearchParams({ format, ...(where && { where: JSON.stringify(where) }) });
  return `/api/v1/worklists/${id}/export?${query}`;
}

/** The worklist's name, which leads to the others. */
function ListMenu({ list, onMake }: { list: SeenList; onMake(isNew: boolean): void }) {
  const { t } = useWords();
  const { data: own = [] } = useOwnLists();
  const name = isGiven(list.id) ? t(`worklists/${list.id}`) : (list.own?.name ?? '');
  return (
    <h1>
      <Menu position="bottom-start">
        <Menu.Target>
          <button type="button">
            <bdi>{name}</bdi> <IconChevronDown size={17} />
          </button>
        </Menu.Target>
        <Menu.Dropdown mah="80vh" style={{ overflowY: 'auto' }}>
          {GIVEN_NAMES.map((each) => (
            <Menu.Item key={each} component={Link} to={`/desk/${each}`}>
              {t(`worklists/${each}`)}
            </Menu.Item>
          ))}
          <Menu.Divider />
          {own.length > 0 && <Menu.Label>{t('lists/own')}</Menu.Label>}
          {own.map(({ id, name: each, teamId }) => (
            <Menu.Item
              key={id}
              component={Link}
              to={`/desk/${id}`}
              rightSection={teamId ? <small>{t('lists/shared')}</small> : null}
            >
              <bdi>{each}</bdi>
            </Menu.Item>
          ))}
          <Menu.Item onClick={() => onMake(true)}>{t('lists/makeFrom')}</Menu.Item>
          {list.own?.mayEdit && <Menu.Item onClick={() => onMake(false)}>{t('lists/changeThis')}</Menu.Item>}
          {(['csv', 'xlsx'] as const).map((format) => (
            <Menu.Item key={format} component="a" href={exportAddress(list, format)} download>
              {t(`lists/export/${format}`)}
            </Menu.Item>
          ))}
          <Menu.Divider />
          <Menu.Item component={Link} to="/desk/raise">
            {t('desk/raise')}
          </Menu.Item>
          <Menu.Item component={Link} to="/desk/import">
            {t('palette/import')}
          </Menu.Item>
        </Menu.Dropdown>
      </Menu>
    </h1>
  );
}

/** "Seen as time, ordered by what moves next, not grouped": each a choice in the sentence. */
function Sentence({ list, onSee }: Pick<Props, 'list' | 'onSee'>) {
  const { t } = useWords();
  const [isOrder, setOrder] = useState(false);
  const options = (group: string, values: readonly string[]) =>
    values.map((value) => ({ value, label: t(`lists/${group}/${value}`) }));
  const isRows = list.view === 'time';
  return (
    <>
      {t('lists/seenAs_')}{' '}
      <InlineSelect
        label={t('lists/seenAs')}
        value={list.view}
        options={options('views', VIEWS)}
        isFixed={false}
        onChange={(view) => onSee({ view: view as never })}
      />
      {isRows && (
        <>
          {t('lists/orderedBy_')}{' '}
          <InlineSelect
            label={t('lists/orderedBy')}
            value={list.order}
            options={options('orders', ORDERS)}
            isFixed={false}
            onChange={(order) => onSee({ order: order as Order })}
          />
          {list.order === 'next' && (
            <>
              {' '}
              <Popover width={380} withArrow opened={isOrder} onChange={setOrder}>
                <Popover.Target>
                  <button type="button" onClick={() => setOrder(!isOrder)}>
                    {t('desk/whyOrder')}
                  </button>
                </Popover.Target>
                <Popover.Dropdown>
                  <OrderEditor />
                </Popover.Dropdown>
              </Popover>
            </>
          )}
          {t('lists/groupedBy_')}{' '}
          <InlineSelect
            label={t('lists/groupedBy')}
            value={list.groupBy ?? 'none'}
            options={options('groups', ['none', ...GROUPINGS])}
            isFixed={false}
            onChange={(groupBy) => onSee({ groupBy: groupBy as never })}
          />
        </>
      )}
      {list.view === 'board' && (
        <>
          {t('lists/columnsBy_')}{' '}
          <InlineSelect
            label={t('lists/columnsBy')}
            value={list.boardBy}
            options={BOARD_FIELDS.map((value) => ({ value, label: t(`lists/fields/${value}`) }))}
            isFixed={false}
            onChange={(boardBy) => onSee({ boardBy: boardBy as never })}
          />
        </>
      )}
    </>
  );
}

/** The heading sentence of a worklist: which one, how many, seen and ordered how, narrowed to what. */
export const Head = memo(function Head(props: Props) {
  const { list, total, chosen, now, isNarrow, waiting, onSettle, onChoose, onSee } = props;
  const { t, count } = useWords();
  const times = useTimes();
  const [making, setMaking] = useState<'new' | 'own' | null>(null);
  const shown = total ? count(total.count, total.isMore) : '…';
  const lead = isGiven(list.id) ? `worklistLead/${list.id}` : 'lists/ownLead';
  return (
    <div className={classes.title}>
      <ListMenu list={list} onMake={(isNew) => setMaking(isNew ? 'new' : 'own')} />
      <span className={classes.lead}>
        {t(lead, { count: shown })}
        {!isNarrow && <ZoneClocks now={now} />}
        {waiting > 0 && (
          <Button size="compact-xs" variant="default" ms={8} onClick={onSettle}>
            {t('lists/settle', { count: waiting })}
          </Button>
        )}
      </span>
      {!isNarrow && (
        <span className={classes.lead}>
          <Sentence list={list} onSee={onSee} />
          {' · '}
          <Narrow where={list.where} onChange={(where) => onSee({ where })} />
          {chosen && (
            <>
              {' · '}
              {t('desk/narrowed', {
                from: times.when(chosen.from, now),
                to: times.when(chosen.to, now),
              })}{' '}
              <Button size="compact-xs" variant="default" onClick={() => onChoose(null)}>
                {t('desk/whole')}
              </Button>
            </>
          )}
        </span>
      )}
      {making && (
        <ListEditor
          own={making === 'own' ? list.own : null}
          from={{
            ...list.definition,
            condition: list.where
              ? { all: [list.definition.condition, list.where] }
              : list.definition.condition,
            ...{ order: list.order, groupBy: list.groupBy, seenAs: list.view },
            board: { ...list.definition.board, by: list.boardBy },
          }}
          onClose={() => setMaking(null)}
        />
      )}
    </div>
  );
});
