import { Popover } from '@mantine/core';
import { useRef, useState, type KeyboardEvent } from 'react';
import { Link } from 'react-router';
import { useWords } from '../../messages/useWords';
import { useTimes } from '../../ui/useTimes';
import classes from './Dayline.module.css';
import type { Stretch } from './Dayline';
import type { Mark } from './marks';

type Props = { marks: Mark[]; now: number; chosen: Stretch | null; onChoose(stretch: Stretch | null): void };

const LEAST = 17;
const STEP = 9;
const MOST = 58;
const NAMED = 3;
/** A stretch chosen by marks takes in the whole minute of each. */
const MINUTE = 60_000;

/** The marks of the day line: arrows go from one to the next, Shift chooses the stretch between, Enter opens. */
export function DayMarks({ marks, now, chosen, onChoose }: Props) {
  const [at, setAt] = useState(0);
  const [anchor, setAnchor] = useState<number | null>(null);
  const buttons = useRef<(HTMLButtonElement | null)[]>([]);
  const current = Math.min(at, marks.length - 1);

  function onKeyDown(event: KeyboardEvent): void {
    if (event.key === 'Escape' && chosen) {
      event.stopPropagation();
      setAnchor(null);
      onChoose(null);
      return;
    }
    const step = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (step === 0) return;
    event.preventDefault();
    const next = Math.min(marks.length - 1, Math.max(0, current + step));
    setAt(next);
    buttons.current[next]?.focus();
    if (!event.shiftKey) {
      setAnchor(null);
      return;
    }
    const from = anchor ?? current;
    setAnchor(from);
    const [first, last] = [marks[Math.min(from, next)]!, marks[Math.max(from, next)]!];
    onChoose({ from: first.dues[0]!.at - MINUTE, to: last.dues.at(-1)!.at + MINUTE });
  }
  return (
    <span onKeyDown={onKeyDown}>
      {marks.map((mark, i) => (
        <MarkButton
          key={mark.dues[0]!.number}
          {...{ mark, now }}
          isCurrent={i === current}
          onButton={(button) => (buttons.current[i] = button)}
          onPoint={() => setAt(i)}
        />
      ))}
    </span>
  );
}

/** One due instant, or several that fall together; it opens to say which. */
function MarkButton({
  mark,
  now,
  isCurrent,
  onButton,
  onPoint,
}: {
  mark: Mark;
  now: number;
  isCurrent: boolean;
  onButton(button: HTMLButtonElement | null): void;
  onPoint(): void;
}) {
  const { t } = useWords();
  const times = useTimes();
  const { x, tone, dues } = mark;
  const titles = dues.slice(0, NAMED).map(({ title }) => title);
  const count = dues.length;
  return (
    <Popover width={300} position="bottom" withArrow trapFocus>
      <Popover.Target>
        <button
          ref={onButton}
          type="button"
          className={classes.mark}
          data-tone={tone}
          tabIndex={isCurrent ? 0 : -1}
          style={{ left: `${x * 100}%`, height: Math.min(MOST, LEAST + (count - 1) * STEP) }}
          aria-label={t('desk/mark', {
            count,
            when: times.when(dues[0]!.at, now),
            titles: titles.join(', ') + (count > NAMED ? ' …' : ''),
          })}
          onFocus={onPoint}
          // A mark is opened, not dragged over.
          onPointerDown={(event) => event.stopPropagation()}
        >
          {count > 2 && <b>{count}</b>}
        </button>
      </Popover.Target>
      <Popover.Dropdown p={6} onPointerDown={(event) => event.stopPropagation()}>
        <ul className={classes.cluster}>
          {dues.map(({ number, title, at, tone: own }) => (
            <li key={number}>
              <Link to={`/desk/everything/${number}`}>
                <span data-tone={own}>{times.hour(at)}</span> <bdi>{title}</bdi>
              </Link>
            </li>
          ))}
        </ul>
      </Popover.Dropdown>
    </Popover>
  );
}
