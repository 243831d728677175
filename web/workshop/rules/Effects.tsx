import { Button, Menu } from '@mantine/core';
import type { RuleEffect } from '../../../contract/rules';
import { useTeams } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { InlineRemove } from '../../ui/Inline';
import { SortableItem, SortableList } from '../../ui/Sortable';
import { EffectBlanks } from './EffectBlanks';
import classes from './Rules.module.css';
import { useRuleWords } from './useRuleWords';

const KINDS = ['set', 'give', 'hold', 'tell', 'answer', 'note', 'alsoTell', 'room', 'end'] as const;
const NOTHING = { en: '', pt: '' };

/** What each kind of effect is at first. */
function beginEffect(kind: (typeof KINDS)[number], teamId: string): RuleEffect {
  switch (kind) {
    case 'set':
      return { do: 'set', field: 'priority', to: 'P2' };
    case 'give':
      return { do: 'give', teamId };
    case 'hold':
      return { do: 'hold', for: 'requester' };
    case 'tell':
      return { do: 'tell', whom: ['lead'], words: NOTHING };
    case 'alsoTell':
      return { do: 'alsoTell', personIds: [] };
    case 'room':
      return { do: 'room', roomId: '', words: NOTHING };
    case 'end':
      return { do: 'end', as: 'done', words: NOTHING };
    default:
      return { do: kind, words: NOTHING };
  }
}

type Props = { effects: RuleEffect[]; isFixed: boolean; onChange(effects: RuleEffect[]): void };

/** What a rule does, in order. */
export function Effects({ effects, isFixed, onChange }: Props) {
  const { t } = useWords();
  const { sayEffect } = useRuleWords();
  const { data: teams = [] } = useTeams();
  const ids = effects.map((_, i) => String(i));
  return (
    <>
      <SortableList ids={ids} onOrder={(next) => onChange(next.map((id) => effects[Number(id)]!))}>
        <ol className={classes.effects}>
          {effects.map((effect, i) => (
            <SortableItem
              key={i}
              id={String(i)}
              className={classes.effect}
              isFixed={isFixed}
              label={t('rules/moveEffect', { what: sayEffect(effect) })}
            >
              {(grip) => (
                <>
                  {grip}
                  <div className={classes.sentence}>
                    {t(`rules/kinds/${effect.do}`)}{' '}
                    <EffectBlanks
                      {...{ effect, isFixed }}
                      onChange={(next) => onChange(effects.with(i, next))}
                    />
                  </div>
                  {!isFixed && (
                    <InlineRemove
                      name={sayEffect(effect)}
                      onRemove={() => onChange(effects.toSpliced(i, 1))}
                    />
                  )}
                </>
              )}
            </SortableItem>
          ))}
        </ol>
      </SortableList>
      {!isFixed && (
        <Menu position="bottom-start">
          <Menu.Target>
            <Button size="compact-sm" variant="default">
              {t('rules/addEffect')}
            </Button>
          </Menu.Target>
          <Menu.Dropdown>
            {KINDS.map((kind) => (
              <Menu.Item
                key={kind}
                onClick={() => onChange([...effects, beginEffect(kind, teams[0]?.id ?? '')])}
              >
                {t(`rules/kinds/${kind}`)}
              </Menu.Item>
            ))}
          </Menu.Dropdown>
        </Menu>
      )}
      {effects.some((effect) => 'words' in effect) && (
        <p className={classes.quiet}>
          {t('rules/blanks')} {t('rules/nobodySaid')}
        </p>
      )}
    </>
  );
}
