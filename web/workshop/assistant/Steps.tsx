import { Button, NativeSelect, Select, TextInput } from '@mantine/core';
import { MOST_LEVELS, type MatterStep } from '../../../core/assistant';
import { LANGUAGES, type LocalText } from '../../../core/forms';
import { useWords } from '../../messages/useWords';
import { InlineRemove } from '../../ui/Inline';
import { BothLanguages } from '../../ui/BothLanguages';
import classes from './Matters.module.css';

const KINDS = ['say', 'ask', 'article', 'form', 'state', 'ticket', 'approval', 'person', 'end'] as const;
type Kind = (typeof KINDS)[number];
const NOTHING = { en: '', pt: '' };

type Ask = Extract<MatterStep, { kind: 'ask' }>;
type Common = { articles: { id: string; title: string }[]; isFixed: boolean };
type Props = Common & {
  steps: MatterStep[];
  onChange(steps: MatterStep[]): void;
};

function begin(kind: Kind): MatterStep {
  if (kind === 'say') return { kind, text: NOTHING };
  if (kind === 'ask') return { kind, text: NOTHING, field: 'what', choices: [] };
  if (kind === 'article') return { kind, articleId: '' };
  return { kind };
}

const split = (text: string): string[] => text.split(',').map((choice) => choice.trim());

/** Choices as they are typed, in each language with commas between; what one language lacks is said as in the other. */
export function readChoices(typed: LocalText): LocalText[] {
  const [en, pt] = LANGUAGES.map((language) => split(typed[language]));
  return Array.from({ length: Math.max(en!.length, pt!.length) }, (_, i) => ({
    en: en![i] || pt![i] || '',
    pt: pt![i] || en![i] || '',
  })).filter((choice) => choice.en !== '');
}

const showChoices = (choices: LocalText[]): LocalText => ({
  en: choices.map(({ en }) => en).join(', '),
  pt: choices.map(({ pt }) => pt).join(', '),
});

/** Choices are kept when their fields are left: half a word between two commas is none yet. */
function Choices({ step, isFixed, onChange }: { step: Ask; isFixed: boolean; onChange(step: Ask): void }) {
  const { t } = useWords();
  const typed = showChoices(step.choices);
  return (
    <div className={classes.pair}>
      {LANGUAGES.map((language) => (
        <TextInput
          key={`${language} ${typed[language]}`}
          size="xs"
          lang={language}
          label={`${t('assistant/workshop/stepChoices')}, ${language}`}
          readOnly={isFixed}
          defaultValue={typed[language]}
          onBlur={({ target }) => {
            if (target.value !== typed[language])
              onChange({ ...step, choices: readChoices({ ...typed, [language]: target.value }) });
          }}
        />
      ))}
    </div>
  );
}

/** Where each answer to a question leads. */
function Branches({
  step,
  way,
  level,
  onChange,
  ...common
}: Common & { step: Ask; way: string; level: number; onChange(step: Ask): void }) {
  const { t, local } = useWords();
  const branches = step.choices.map((_, i) => step.branches?.[i] ?? []);
  const put = (i: number, steps: MatterStep[]): void =>
    onChange({ ...step, branches: branches.with(i, steps) });
  return step.choices.map((choice, i) => (
    <section
      key={i}
      className={classes.branch}
      aria-label={t('assistant/workshop/branches/if', { choice: local(choice) })}
    >
      <h3>
        {t('assistant/workshop/branches/if', { choice: local(choice) })}
        {branches[i]!.length === 0 && <small>{t('assistant/workshop/branches/below')}</small>}
      </h3>
      <Flow
        {...common}
        steps={branches[i]!}
        way={`${way}.${i + 1}.`}
        level={level + 1}
        add={t('assistant/workshop/branches/add', { choice: local(choice) })}
        onChange={(steps) => put(i, steps)}
      />
    </section>
  ));
}

/** What a step says, asks or shows. */
function Details({
  step,
  onChange,
  ...rest
}: Common & { step: MatterStep; way: string; level: number; onChange(step: MatterStep): void }) {
  const { t } = useWords();
  const { isFixed, articles, level } = rest;
  return (
    <div>
      {(step.kind === 'say' || step.kind === 'ask') && (
        <BothLanguages
          label={t('assistant/workshop/stepText')}
          value={step.text}
          isFixed={isFixed}
          onChange={(text) => onChange({ ...step, text })}
        />
      )}
      {step.kind === 'ask' && (
        <>
          <Choices {...{ step, isFixed, onChange }} />
          <TextInput
            size="xs"
            label={t('assistant/workshop/stepField')}
            readOnly={isFixed}
            value={step.field}
            onChange={({ target }) => onChange({ ...step, field: target.value })}
          />
          {level < MOST_LEVELS && <Branches {...rest} {...{ step, onChange }} />}
        </>
      )}
      {step.kind === 'article' && (
        <Select
          size="xs"
          searchable
          aria-label={t('assistant/workshop/stepArticle')}
          readOnly={isFixed}
          value={step.articleId}
          data={articles.map(({ id, title }) => ({ value: id, label: title }))}
          onChange={(articleId) => articleId && onChange({ ...step, articleId })}
        />
      )}
    </div>
  );
}

function Flow({
  steps,
  way,
  level,
  add,
  onChange,
  ...common
}: Props & { way: string; level: number; add: string }) {
  const { t } = useWords();
  return (
    <>
      {steps.length > 0 && (
        <ol className={classes.flow}>
          {steps.map((step, i) => (
            <li key={i}>
              <NativeSelect
                size="xs"
                aria-label={t('assistant/workshop/branches/of', { way: `${way}${i + 1}` })}
                disabled={common.isFixed}
                value={step.kind}
                data={KINDS.map((kind) => ({ value: kind, label: t(`assistant/workshop/step/${kind}`) }))}
                onChange={({ target }) => onChange(steps.with(i, begin(target.value as Kind)))}
              />
              <Details
                {...common}
                {...{ step, level, way: `${way}${i + 1}` }}
                onChange={(changed) => onChange(steps.with(i, changed))}
              />
              {!common.isFixed && (
                <InlineRemove
                  name={t('assistant/workshop/branches/of', { way: `${way}${i + 1}` })}
                  onRemove={() => onChange(steps.toSpliced(i, 1))}
                />
              )}
            </li>
          ))}
        </ol>
      )}
      {!common.isFixed && (
        <Button size="compact-xs" variant="default" onClick={() => onChange([...steps, begin('say')])}>
          {add}
        </Button>
      )}
    </>
  );
}

/** The flow of a matter: its steps, one under the other, as they are walked, with those that an answer leads to. */
export function Steps(props: Props) {
  const { t } = useWords();
  return (
    <section aria-label={t('assistant/workshop/steps')}>
      <h2 className={classes.heading}>{t('assistant/workshop/steps')}</h2>
      <Flow {...props} way="" level={0} add={t('assistant/workshop/addStep')} />
    </section>
  );
}
