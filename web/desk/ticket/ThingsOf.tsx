import { Button } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { Link } from 'react-router';
import type { Tie } from '../../../contract/estateNames';
import type { ThingOnTicket } from '../../../contract/estate';
import type { Ticket } from '../../../contract/tickets';
import { call } from '../../api/call';
import { useNow } from '../../api/clock';
import { api } from '../../api/endpoints';
import { useRenew } from '../../api/queries';
import { LentUntil, WarrantyUntil } from '../../estate/untils';
import { Shape } from '../../estate/ThingRefs';
import { ThingSelect } from '../../estate/ThingSelect';
import '../../messages/estateWords';
import { useWords } from '../../messages/useWords';
import { PersonName } from '../../ui/PersonName';
import { ProblemNote } from '../../ui/ProblemNote';
import classes from './DeskTicket.module.css';

function useTies({ number }: Ticket) {
  const renew = useRenew();
  const params = { number };
  const tie = useMutation({
    mutationFn: (body: { thingId: string; how: Tie }) =>
      call(api.estate.tie, { params, body, key: nanoid() }),
    onSettled: () => renew(number),
  });
  const untie = useMutation({
    mutationFn: (thingId: string) => call(api.estate.untie, { params: { ...params, thingId } }),
    onSettled: () => renew(number),
  });
  return { tie, untie };
}

/** What is known of a thing, in the order in which it is asked for: who has it, whether it is covered, what it hangs on. */
function Known({ thing }: { thing: ThingOnTicket }) {
  const { t, local } = useWords();
  const now = useNow(60_000);
  const {
    kind,
    tag,
    model,
    state,
    holder,
    site,
    place,
    warrantyUntil,
    contract,
    needs,
    neededBy,
    downCount,
  } = thing;
  const facts = [local(kind), tag, model, t(`estate/states/${state}`)].filter(Boolean);
  const names = (things: { name: string }[]): string => things.map(({ name }) => name).join(', ');
  return (
    <>
      <small>{facts.join(' · ')}</small>
      <small>
        {holder && <PersonName person={holder} />} {[site?.name, place].filter(Boolean).join(', ')}
      </small>
      <LentUntil at={thing.lentUntil} now={now} />
      {warrantyUntil && (
        <small>
          {t('estate/fields/warrantyUntil')} <WarrantyUntil day={warrantyUntil} now={now} />
        </small>
      )}
      {contract && <small>{contract}</small>}
      {needs.length > 0 && <small>{t('estate/onTicket/needs', { names: names(needs) })}</small>}
      {neededBy.length > 0 && (
        <small>
          {t('estate/neededBy')}: {names(neededBy)}
        </small>
      )}
      {downCount > 0 && <small>{t('estate/onTicket/downWith', { count: downCount })}</small>}
    </>
  );
}

function OneThing({ ticket, thing }: { ticket: Ticket; thing: ThingOnTicket }) {
  const { t } = useWords();
  const { tie, untie } = useTies(ticket);
  const { id, name, how, isAnswer, standing, tickets, ticketCount } = thing;
  const mayChange = ticket.rights.includes('note');
  const other = how === 'about' ? 'cause' : 'about';
  return (
    <li>
      <div>
        <Shape standing={standing} />
        <Link to={`/estate/${id}`}>
          <bdi>{name}</bdi>
        </Link>{' '}
        {how === 'cause' && <b>{t('estate/onTicket/cause')}</b>}
      </div>
      <Known thing={thing} />
      {tickets.length > 0 && (
        <details>
          <summary>{t('estate/onTicket/before', { count: ticketCount })}</summary>
          {tickets.map(({ number, title, state }) => (
            <div key={number}>
              <Link to={`/desk/everything/${number}`}>
                {number} <bdi>{title}</bdi>
              </Link>{' '}
              <small>{t(`states/${state}`)}</small>
            </div>
          ))}
        </details>
      )}
      {mayChange && (
        <div>
          <button
            type="button"
            className={classes.link}
            onClick={() => tie.mutate({ thingId: id, how: other })}
          >
            <small>{t(other === 'cause' ? 'estate/onTicket/makeCause' : 'estate/onTicket/makeAbout')}</small>
          </button>
          {!isAnswer && (
            <Button
              size="compact-xs"
              miw={24}
              mih={24}
              variant="subtle"
              aria-label={t('estate/onTicket/takeOff', { name })}
              onClick={() => untie.mutate(id)}
            >
              ×
            </Button>
          )}
        </div>
      )}
      <ProblemNote error={tie.error ?? untie.error} />
    </li>
  );
}

/** The things that a ticket is about, with what is known of each; those of its requester are offered first. */
export function ThingsOf({ ticket }: { ticket: Ticket }) {
  const { t } = useWords();
  const { number, requester, rights } = ticket;
  const { tie } = useTies(ticket);
  const { data: things, error } = useQuery({
    queryKey: ['ticket', number, 'things'],
    queryFn: () => call(api.estate.ofTicket, { params: { number } }),
  });
  const mayChange = rights.includes('note');
  if (!mayChange && !error && (things ?? []).length === 0) return null;
  return (
    <section aria-labelledby="things-of">
      <h2 id="things-of">{t('estate/onTicket/title')}</h2>
      <ProblemNote error={error ?? tie.error} />
      <ul className={classes.things}>
        {things?.map((thing) => (
          <OneThing key={thing.id} {...{ ticket, thing }} />
        ))}
      </ul>
      {mayChange && (
        <ThingSelect
          label={t('estate/onTicket/add')}
          holderId={requester.id}
          except={(things ?? []).map(({ id }) => id)}
          onPick={({ id }) => tie.mutate({ thingId: id, how: 'about' })}
        />
      )}
    </section>
  );
}
