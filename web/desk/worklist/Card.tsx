import { Menu } from '@mantine/core';
import { IconArrowsMove } from '@tabler/icons-react';
import { useDraggable } from '@dnd-kit/core';
import { Link } from 'react-router';
import type { CardFact } from '../../../core/worklist';
import { useWords } from '../../messages/useWords';
import type { LiveRow } from './Row';
import { rowIdOf, type RowWords } from './useRowWords';
import classes from './Board.module.css';

type Props = LiveRow & {
  words: RowWords;
  to: string;
  facts: CardFact[];
  /** Where it may go, by name. */
  places: { value: string; label: string }[];
  onPlace(value: string): void;
};

function sayFact({ ticket, live }: LiveRow, fact: CardFact, words: RowWords): string | null {
  if (fact === 'left') return live ? words.left(live, true) : null;
  return words.cell(ticket, fact);
}

/** A piece of work as a card; it is dragged, or sent by its menu. */
export function Card({ ticket, live, words, to, facts, places, onPlace }: Props) {
  const { t, local } = useWords();
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
      {...listeners}
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
          const said = sayFact({ ticket, live }, fact, words);
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
