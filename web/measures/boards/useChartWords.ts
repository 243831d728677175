import type { ChartAnswer } from '../../../contract/measures';
import type { Condition, Scalar } from '../../../core/conditions';
import { LOCALES } from '../../../core/forms';
import {
  getFactField,
  getGivenBoard,
  isOfCourse,
  isOfPeople,
  reckonedBy,
  type Chart,
  type FactKind,
  type Stretch,
  type Unit,
} from '../../../core/measures';
import { getListField } from '../../../core/worklist';
import '../../messages/boardsWords';
import '../../messages/listsWords';
import { useWords } from '../../messages/useWords';
import { dateFormat } from '../../ui/dateFormat';
import { useFieldWords } from '../../ui/useFieldWords';
import { useTimes } from '../../ui/useTimes';

const MINUTE = 60_000;

/** How the beginning of a bucket is written, by how long the bucket is. */
const DATES: Record<Unit, Intl.DateTimeFormatOptions> = {
  hour: { weekday: 'short', day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' },
  day: { weekday: 'short', day: 'numeric', month: 'short' },
  week: { day: 'numeric', month: 'short' },
  month: { month: 'short', year: 'numeric' },
  quarter: { month: 'short', year: 'numeric' },
  year: { year: 'numeric' },
};

/** The unit in which a chart's figures are read. */
export function unitOf(chart: Pick<Chart, 'of' | 'what' | 'show'>): 'length' | 'percent' | 'number' {
  if (chart.what !== 'count' && 'share' in chart.what) return 'percent';
  const field = reckonedBy(chart);
  return field !== null && getFactField(chart.of, field)?.is === 'length' ? 'length' : 'number';
}

/** Says fields, values and conditions of facts. */
function useFactWords() {
  const { t } = useWords();
  const lists = useFieldWords();
  const fieldName = (name: string): string =>
    t(`boards/fields/${name}`, {
      defaultValue: getListField(name) ? lists.fieldName(name).toLocaleLowerCase() : name,
    });

  /** What a value of a field is called; `name`: as the server says it. */
  function valueName(field: string, key: Scalar, name: string | null = null): string {
    if (name !== null) return name;
    if (typeof key === 'boolean') return t(key ? 'common/yes' : 'common/no');
    if (key === null) return t(isOfPeople(field) ? 'boards/nobody' : 'boards/none');
    const listed = getListField(field) ? lists.valueWords(field, key) : String(key);
    return t(`boards/values/${field}/${String(key)}`, { defaultValue: listed || String(key) });
  }

  /** A condition as a phrase. */
  function toPhrase(of: FactKind, condition: Condition): string {
    if ('not' in condition) return t('lists/notPhrase', { what: toPhrase(of, condition.not) });
    if ('all' in condition) return condition.all.map((part) => toPhrase(of, part)).join(t('lists/andJoin'));
    if ('any' in condition) return condition.any.map((part) => toPhrase(of, part)).join(t('lists/orJoin'));
    const field = getFactField(of, condition.field);
    if (!field) return t('lists/gone', { field: condition.field });
    const given: unknown = 'value' in condition ? condition.value : [];
    const values = (Array.isArray(given) ? given : [given]) as Scalar[];
    // One of one is that one.
    const one: Record<string, string> = { in: 'is', notIn: 'isNot' };
    const op = values.length === 1 ? (one[condition.op] ?? condition.op) : condition.op;
    const said = values.map((value) => valueName(condition.field, value)).join(t('lists/orJoin'));
    return `${fieldName(condition.field)} ${t(`lists/ops/${op}`, { defaultValue: op })} ${said}`.trim();
  }

  return { fieldName, valueName, toPhrase };
}

/** Says charts: their sentence, their parts, their figures. */
export function useChartWords() {
  const { t, language } = useWords();
  const times = useTimes();
  const facts = useFactWords();
  const { fieldName, toPhrase } = facts;
  const numbers = new Intl.NumberFormat(LOCALES[language], { maximumFractionDigits: 1 });
  const stretch = ({ last, unit }: Stretch): string => t(`boards/stretches/${unit}`, { count: last });

  /** What a chart says of its facts. */
  function whatSaid({ of, what, at, show }: Chart): string {
    const nouns = t(`boards/of/${of}`);
    if (isOfCourse(show)) return t(`boards/says/${show}`, { of: nouns });
    if (what === 'count')
      return `${t('boards/says/count', { of: nouns })}${t('boards/says/at', { at: fieldName(at) })}`;
    if ('share' in what) return t('boards/says/share', { of: nouns, condition: toPhrase(of, what.share) });
    const [name, field] = Object.entries(what)[0]!;
    return t(`boards/says/${name}`, { field: fieldName(field), of: nouns });
  }

  /** What a chart says, in one sentence. */
  function sentence(chart: Chart, board: Stretch): string {
    const { of, where, by, every, show } = chart;
    const isAny = 'all' in where && where.all.length === 0;
    const said = whatSaid(chart);
    // What is open now and what will come is of no stretch that has passed.
    const isNow = show === 'ageing' || show === 'expected';
    const whole = t(isNow ? 'boards/sentenceNow' : 'boards/sentence', {
      what: said,
      where: isAny ? '' : t('boards/says/where', { condition: toPhrase(of, where) }),
      by: by === null ? '' : t('boards/says/by', { field: fieldName(by) }),
      every:
        every === null || show === 'heat' ? '' : t('boards/says/every', { unit: t(`boards/units/${every}`) }),
      stretch: stretch(chart.stretch ?? board),
    });
    return whole.charAt(0).toLocaleUpperCase() + whole.slice(1);
  }

  /** A figure of a chart, in its unit. */
  function figure(chart: Pick<Chart, 'of' | 'what' | 'show'>, value: number | null): string {
    if (value === null) return '–';
    const unit = unitOf(chart);
    if (unit === 'length') return times.span(Math.round(value / MINUTE));
    return unit === 'percent' ? `${numbers.format(value)} %` : numbers.format(value);
  }

  /** When a bucket begins. */
  const bucket = (at: number, every: Unit, { zone }: Pick<ChartAnswer, 'zone'>): string =>
    dateFormat(LOCALES[language], { ...DATES[every], timeZone: zone }).format(at);

  return {
    ...facts,
    sentence,
    figure,
    bucket,
    stretch,
    numbers,
    span: times.span,
  };
}

/** Says what a board is called: a given one by the catalogue. */
export function useBoardName(): (board: { id: string; name: string }) => string {
  const { t } = useWords();
  return ({ id, name }) => (getGivenBoard(id) ? t(`boards/names/${id.slice('given-'.length)}`) : name);
}

/** Says what a chart is called: by its own name, or as a given one by the catalogue; null: by its sentence alone. */
export function useChartName(): (chart: Pick<Chart, 'id' | 'title'>) => string | null {
  const { t } = useWords();
  return ({ id, title }) => title || t(`boards/chartNames/${id}`, { defaultValue: '' }) || null;
}
