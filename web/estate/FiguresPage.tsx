import { Select } from '@mantine/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { Fragment } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { EstateFigures } from '../../contract/estate';
import { useNow } from '../api/clock';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { useMoney } from '../ui/useMoney';
import { Waiting } from '../ui/Waiting';
import classes from './Estate.module.css';
import { EstateFrame } from './EstateFrame';
import { WarrantyUntil } from './untils';
import { useKinds } from './useThings';

type Sums = EstateFigures['byYear'];

function Bars({ title, sums, unnamed }: { title: string; sums: Sums; unnamed: string }) {
  const { t } = useWords();
  const money = useMoney();
  const isPriced = sums.some(({ cost }) => cost > 0);
  const valueOf = ({ cost, count }: Sums[number]): number => (isPriced ? cost : count);
  const most = Math.max(1, ...sums.map(valueOf));
  return (
    <section className={classes.section}>
      <h2>{title}</h2>
      <div className={classes.bars}>
        {sums.map((sum) => (
          <Fragment key={sum.name}>
            <span>{sum.name || unnamed}</span>
            <i style={{ width: `${(100 * valueOf(sum)) / most}%` }} />
            <span className={classes.quiet}>
              {t('estate/count', { count: sum.count })}
              {sum.cost > 0 && ` · ${money(sum.cost)} → ${money(sum.worth)}`}
            </span>
          </Fragment>
        ))}
      </div>
    </section>
  );
}

/** How often the things of each model break, with the range that chance leaves. */
function Models({ batches }: Pick<EstateFigures, 'batches'>) {
  const { t } = useWords();
  const percent = (share: number): number => Math.round(share * 100);
  return (
    <section className={classes.section}>
      <h2>{t('estate/figure/batches')}</h2>
      <p className={classes.quiet}>{t('estate/figure/batchesHelp')}</p>
      {batches.length === 0 && <p>{t('estate/figure/noBatches')}</p>}
      <div className={classes.bars}>
        {batches.map(({ model, all, failed, low, high, isBad }) => (
          <Fragment key={model}>
            <span>
              <Link to={`/estate?q=${encodeURIComponent(model)}`}>{model}</Link>
            </span>
            <span className={classes.range} data-bad={isBad}>
              <i style={{ left: `${low * 100}%`, width: `${Math.max(0.5, (high - low) * 100)}%` }} />
            </span>
            <span className={isBad ? undefined : classes.quiet}>
              {t('estate/figure/share', { failed, all, low: percent(low), high: percent(high) })}
              {isBad && <b> {t('estate/figure/bad')}</b>}
            </span>
          </Fragment>
        ))}
      </div>
    </section>
  );
}

function Shown({ figures }: { figures: EstateFigures }) {
  const { t } = useWords();
  const money = useMoney();
  const now = useNow(60_000);
  const { count, cost, worth, byDepartment, byYear, batches, expiring } = figures;
  return (
    <>
      <dl className={classes.numbers}>
        <div>
          <dt>{t('estate/figure/things')}</dt>
          <dd>{count}</dd>
        </div>
        <div>
          <dt>{t('estate/figure/cost')}</dt>
          <dd>{money(cost)}</dd>
        </div>
        <div>
          <dt>{t('estate/figure/worth')}</dt>
          <dd>{money(worth)}</dd>
        </div>
      </dl>
      <Models batches={batches} />
      <div className={classes.cols}>
        <Bars title={t('estate/figure/byYear')} sums={byYear} unnamed={t('estate/figure/noYear')} />
        <Bars
          title={t('estate/figure/byDepartment')}
          sums={byDepartment}
          unnamed={t('estate/figure/noDepartment')}
        />
      </div>
      {expiring.length > 0 && (
        <section className={classes.section}>
          <h2>
            {t('estate/figure/expiring')}
            <Link to="/estate?only=warranty">{t('estate/count', { count: expiring.length })}</Link>
          </h2>
          <ul className={classes.list}>
            {expiring.slice(0, 12).map(({ id, name, holder, warrantyUntil }) => (
              <li key={id}>
                <Link to={`/estate/${id}`}>{name}</Link>
                <small>
                  {holder?.name} <WarrantyUntil day={warrantyUntil} now={now} />
                </small>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}

/** What things cost, what they are still worth, and which models break. */
export function FiguresPage() {
  const { t, local } = useWords();
  const [params, setParams] = useSearchParams();
  const kindId = params.get('kindId');
  const { data: kinds = [] } = useKinds();
  const { data, error, refetch } = useQuery({
    queryKey: ['things', 'figures', kindId],
    placeholderData: keepPreviousData,
    queryFn: () => call(api.estate.figures, { query: kindId === null ? {} : { kindId } }),
  });
  return (
    <EstateFrame title={t('estate/figures')}>
      <Select
        {...{ clearable: true, searchable: true, mb: 'md', w: 240 }}
        label={t('estate/kind')}
        placeholder={t('estate/figure/all')}
        value={kindId}
        data={kinds.map(({ id, name }) => ({ value: id, label: local(name) }))}
        onChange={(id) => setParams(id === null ? {} : { kindId: id }, { replace: true })}
      />
      {error && !data && <ProblemNote error={error} onRetry={() => void refetch()} />}
      {!data && !error && <Waiting />}
      {data && <Shown figures={data} />}
    </EstateFrame>
  );
}
