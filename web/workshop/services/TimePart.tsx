import { Link } from 'react-router';
import { holds } from '../../../core/conditions';
import { DEFAULT_PRIORITY_TABLE, getPriority, TICKET_STATES } from '../../../core/tickets';
import { useWords } from '../../messages/useWords';
import { useCalendarList, useTargets } from '../queries';
import { useTargetWords } from '../promises/useTargetWords';
import { BothLanguages } from '../../ui/BothLanguages';
import classes from './services.module.css';
import type { PartProps } from './useService';

/** The promises that its requests run under. */
export function TimePart({ id, definition }: { id: string; definition: PartProps['definition'] }) {
  const { t } = useWords();
  const { data: targets = [] } = useTargets();
  const { data: calendars = [] } = useCalendarList();
  const { limits } = useTargetWords();
  const { kind, teamId, impact, urgency } = definition;
  // As a request is when it arrives.
  const fields = {
    ...{ kind, teamId, serviceId: id, impact, urgency, state: 'received', answered: false, assigneeId: null },
    work: 'ticket',
    priority: getPriority(DEFAULT_PRIORITY_TABLE, impact, urgency),
    ...(definition.plan && { hasPlan: true }),
  };
  const fitting = targets.filter(({ isOn, definition: target }) => isOn && holds(target.startWhen, fields));
  const hoursOf = ({ definition: { calendars: choices } }: (typeof targets)[number]): string => {
    const choice = choices.find(({ when }) => !when || holds(when, fields));
    return calendars.find((calendar) => calendar.id === choice?.calendarId)?.spec.name ?? '';
  };
  return (
    <div>
      {fitting.length === 0 && <span className={classes.quiet}>{t('services/time/none')} </span>}
      {fitting.map((target) => (
        <div key={target.id}>
          {t('services/time/within', {
            name: target.definition.name,
            limits: limits(target),
            calendar: hoursOf(target),
          })}
        </div>
      ))}
      <Link to="/workshop/promises">{t('services/time/change')}</Link>
    </div>
  );
}

/** What the requester reads in each state, where the service has words of its own. */
export function WordsPart({ definition, isFixed, change }: PartProps) {
  const { t } = useWords();
  const { stateWords, thanks } = definition;
  const said = TICKET_STATES.filter((state) => state !== 'withdrawn');
  return (
    <details open={Object.keys(stateWords).length > 0 || thanks !== null}>
      <summary className={classes.quiet}>{t('services/words/lead')}</summary>
      <BothLanguages
        isFixed={isFixed}
        label={t('services/words/thanks')}
        value={thanks ?? { en: '', pt: '' }}
        onChange={(words) => change({ thanks: words.en === '' && words.pt === '' ? null : words })}
      />
      {said.map((state) => (
        <BothLanguages
          key={state}
          isFixed={isFixed}
          label={t('services/words/state', { state: t(`states/${state}`) })}
          value={stateWords[state] ?? { en: '', pt: '' }}
          onChange={(words) => {
            const { [state]: _, ...others } = stateWords;
            change({
              stateWords: words.en === '' && words.pt === '' ? others : { ...others, [state]: words },
            });
          }}
        />
      ))}
    </details>
  );
}
