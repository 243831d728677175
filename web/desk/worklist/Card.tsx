import { Menu } from '@mantine/core';
import { IconArrowsMove } from '@tabler/icons-react';
import { useDraggable } from '@dnd-kit/core';
import { Link } from 'react-router';
import type { CardFact } from '../../../core/worklist';
import { useWords } from '../../messages/useWords';
import { useLeftWords } from './Fuse';
import type { LiveRow } from './Row';
import { rowIdOf, useWho } from './useRowWords';
import classes from './Board.module.css';

type Props = LiveRow & {
  to: string;
  facts: CardFact[];
  /** Where it may go, by name. */
  places: { value: string; label: string }[];
  onPlace(value: string): void;
};

function useFactWords(): (row: LiveRow, fact: CardFact) => string | null {
  const { local } = useWords();
  const who = useWho();
  const left = useLeftWords();
  return ({ ticket, live }, fact) => {
    switch (fact) {
      case 'requester':
        return ticket.requester.name;
      case 'who':
        return who(ticket).words;
      case 'priority':
        return ticket.priority;
      case 'service':
        return local(ticket.service);
      case 'site':
        return ticket.site;
      case 'progress':
        return ticket.progress && local(ticket.progress.name);
      case 'left':
        return live ? left(live, true) : null;
    }
  };
}

/** A piece of work as a card; it is dragged, or sent by its menu. */
export function Card({ ticket, live, to, facts, places, onPlace }: Props) {
  const { t, local } = useWords();
  const words = useFactWords();
  const { number, title, step } = ticket;
  const isFixed = step !== null;
  const { setNodeRef, listeners, attributes, transform, isDragging } = useDraggable({
    id: rowIdOf(ticket),
    data: { ticket },
    disabled: isFixed,
  });
  return (
    <div
      ref={setNodeRef}
      className={classes.card}
      data-number={number}
      data-tone={live?.tone}
      data-dragged={isDragging || undefined}
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
    >
      <Link to={to} draggable={false}>
        <bdi>{step ? local(step.name) : title}</bdi>
      </Link>
      <div className={classes.facts}>
        <span>{number}</span>
        {facts.map((fact) => {
          const said = words({ ticket, live }, fact);
          return said ? (
            <span key={fact} data-fact={fact}>
              {said}
            </span>
          ) : null;
        })}
      </div>
      {!isFixed && (
        <Menu position="bottom-end">
          <Menu.Target>
            <button
              type="button"
              className={classes.grip}
              {...listeners}
              {...attributes}
              aria-label={t('lists/moveCard', { number })}
            >
              <IconArrowsMove size={15} />
            </button>
          </Menu.Target>
          <Menu.Dropdown>
            {places.length === 0 && <Menu.Label>{t('lists/noPlaces')}</Menu.Label>}
            {places.map(({ value, label }) => (
              <Menu.Item key={value} onClick={() => onPlace(value)}>
                {label}
              </Menu.Item>
            ))}
          </Menu.Dropdown>
        </Menu>
      )}
    </div>
  );
}
