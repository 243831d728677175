import { Button, NativeSelect, Select, TextInput } from '@mantine/core';
import type { MatterBody, MatterStepBody } from '../../../contract/assistant';
import { useWords } from '../../messages/useWords';
import { InlineRemove } from '../../ui/Inline';
import { BothLanguages } from '../../ui/BothLanguages';
import classes from './Matters.module.css';

const KINDS = ['say', 'ask', 'article', 'form', 'state', 'ticket', 'approval', 'person'] as const;
const NOTHING = { en: '', pt: '' };

type Props = {
  steps: MatterBody['steps'];
  articles: { id: string; title: string }[];
  isFixed: boolean;
  onChange(steps: MatterBody['steps']): void;
};

function begin(kind: (typeof KINDS)[number]): MatterStepBody {
  if (kind === 'say') return { kind, text: NOTHING };
  if (kind === 'ask') return { kind, text: NOTHING, field: 'what', choices: [] };
  if (kind === 'article') return { kind, articleId: '' };
  return { kind };
}

/** The flow of a matter: its steps, one under the other, as they are walked. */
export function Steps({ steps, articles, isFixed, onChange }: Props) {
  const { t } = useWords();
  const put = (i: number, step: MatterStepBody): void => onChange(steps.with(i, step));
  return (
    <section aria-label={t('assistant/workshop/steps')}>
      <h2 className={classes.heading}>{t('assistant/workshop/steps')}</h2>
      <ol className={classes.flow}>
        {steps.map((step, i) => (
          <li key={i}>
            <NativeSelect
              size="xs"
              aria-label={`${t('assistant/workshop/steps')} ${i + 1}`}
              disabled={isFixed}
              value={step.kind}
              data={KINDS.map((kind) => ({ value: kind, label: t(`assistant/workshop/step/${kind}`) }))}
              onChange={({ target }) => put(i, begin(target.value as (typeof KINDS)[number]))}
            />
            <div>
              {(step.kind === 'say' || step.kind === 'ask') && (
                <BothLanguages
                  label={t('assistant/workshop/stepText')}
                  value={step.text}
                  isFixed={isFixed}
                  onChange={(text) => put(i, { ...step, text })}
                />
              )}
              {step.kind === 'ask' && (
                <div className={classes.pair}>
                  <TextInput
                    size="xs"
                    label={t('assistant/workshop/stepField')}
                    readOnly={isFixed}
                    value={step.field}
                    onChange={({ target }) => put(i, { ...step, field: target.value })}
                  />
                  <TextInput
                    size="xs"
                    label={t('assistant/workshop/stepChoices')}
                    readOnly={isFixed}
                    value={step.choices.map(({ en }) => en).join(', ')}
                    onChange={({ target }) =>
                      put(i, {
                        ...step,
                        choices: target.value
                          .split(',')
                          .map((choice) => choice.trim())
                          .filter((choice) => choice !== '')
                          .map((choice) => ({ en: choice, pt: choice })),
                      })
                    }
                  />
                </div>
              )}
              {step.kind === 'article' && (
                <Select
                  size="xs"
                  searchable
                  aria-label={t('assistant/workshop/stepArticle')}
                  readOnly={isFixed}
                  value={step.articleId}
                  data={articles.map(({ id, title }) => ({ value: id, label: title }))}
                  onChange={(articleId) => articleId && put(i, { ...step, articleId })}
                />
              )}
            </div>
            {!isFixed && (
              <InlineRemove
                name={t('assistant/workshop/removeStep', { step: i + 1 })}
                onRemove={() => onChange(steps.toSpliced(i, 1))}
              />
            )}
          </li>
        ))}
      </ol>
      {!isFixed && (
        <Button size="compact-xs" variant="default" onClick={() => onChange([...steps, begin('say')])}>
          {t('assistant/workshop/addStep')}
        </Button>
      )}
    </section>
  );
}
