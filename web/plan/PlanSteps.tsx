import { Link } from 'react-router';
import type { Ticket } from '../../contract/tickets';
import { useWords } from '../messages/useWords';
import classes from './Plan.module.css';
import { PlanChanges } from './PlanChanges';
import { StepActions } from './StepActions';
import { usePlanSentence, useStepOwner, useStepWords } from './useStepWords';

/** The plan beside its ticket: what is done, what runs, what is to come and why it has not begun. */
export function PlanSteps({ ticket, list }: { ticket: Ticket; list: string }) {
  const { t, local } = useWords();
  const wordsOf = useStepWords();
  const ownerOf = useStepOwner();
  const sentenceOf = usePlanSentence();
  const plan = ticket.plan!;
  const { words, isLate } = sentenceOf(plan);
  return (
    <section aria-label={t('plan/title')}>
      <h2>
        {t('plan/title')} · <Link to={`/desk/${list}/${ticket.number}/plan`}>{t('plan/seeAsTime')}</Link>
      </h2>
      <p className={classes.sentence} data-late={isLate || undefined}>
        {words}
      </p>
      <PlanChanges ticket={ticket} />
      {plan.legs.map(({ id, name, steps }) => {
        const wanted = steps.filter(({ state }) => state !== 'skipped');
        const done = wanted.filter(({ state }) => state === 'done').length;
        return (
          <div key={id} className={classes.leg}>
            <h3>
              {local(name)}
              <small>{t('plan/legDone', { done, count: wanted.length })}</small>
            </h3>
            <ul className={classes.steps}>
              {steps.map((step) => (
                <li key={step.id} className={classes.step} data-state={step.state} data-step={step.id}>
                  <span className={classes.mark} />
                  <div>
                    {local(step.name)}
                    <small>
                      {ownerOf(step)} ·{' '}
                      <span data-words data-decides={(step.decides && step.state === 'active') || undefined}>
                        {wordsOf(step)}
                      </span>
                    </small>
                    {step.state === 'active' && <StepActions number={ticket.number} step={step} />}
                  </div>
                  {step.state !== 'active' && <StepActions number={ticket.number} step={step} />}
                </li>
              ))}
            </ul>
          </div>
        );
      })}
    </section>
  );
}
