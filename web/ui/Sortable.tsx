import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
  type UniqueIdentifier,
} from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  rectSortingStrategy,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { IconGripVertical } from '@tabler/icons-react';
import type { CSSProperties, ReactNode } from 'react';
import '../messages/movingWords';
import { useWords } from '../messages/useWords';
import classes from './Sortable.module.css';

/** A list that is put in order by dragging, or with Space and the arrows. `isGrid`: its items stand beside each other too. */
export function SortableList({
  ids,
  isGrid = false,
  onOrder,
  children,
}: {
  ids: string[];
  isGrid?: boolean;
  /** The new order, and which one was moved. */
  onOrder(ids: string[], moved: string): void;
  children: ReactNode;
}) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const { t } = useWords();
  const placeOf = (id: UniqueIdentifier | undefined) => ({
    place: ids.indexOf(String(id)) + 1,
    places: ids.length,
  });
  const announcements: Announcements = {
    onDragStart: ({ active }) => t('moving/taken', placeOf(active.id)),
    onDragOver: ({ over }) => t('moving/over', placeOf(over?.id)),
    onDragEnd: ({ over }) => t('moving/put', placeOf(over?.id)),
    onDragCancel: ({ active }) => t('moving/left', placeOf(active.id)),
  };
  const end = ({ active, over }: DragEndEvent): void => {
    const from = ids.indexOf(String(active.id));
    const to = over ? ids.indexOf(String(over.id)) : -1;
    if (from !== -1 && to !== -1 && from !== to) onOrder(arrayMove(ids, from, to), String(active.id));
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      accessibility={{ announcements, screenReaderInstructions: { draggable: t('moving/keys') } }}
      onDragEnd={end}
    >
      <SortableContext items={ids} strategy={isGrid ? rectSortingStrategy : verticalListSortingStrategy}>
        {children}
      </SortableContext>
    </DndContext>
  );
}

type ItemProps = {
  id: string;
  className: string | undefined;
  label: string;
  isFixed: boolean;
  isOpen?: boolean;
  isGrid?: boolean;
  children(grip: ReactNode): ReactNode;
};

/** One of a list that can be moved; its grip is what is taken hold of. */
export function SortableItem({ id, className, label, isFixed, isOpen, isGrid, children }: ItemProps) {
  const { t } = useWords();
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } =
    useSortable({ id, disabled: isFixed });
  const style: CSSProperties = {
    ...(transform && { transform: `translate3d(${isGrid ? transform.x : 0}px, ${transform.y}px, 0)` }),
    ...(transition && { transition }),
    ...(isDragging && { position: 'relative', zIndex: 2 }),
  };
  const grip = isFixed ? (
    <span />
  ) : (
    <button
      type="button"
      ref={setActivatorNodeRef}
      className={classes.grip}
      {...attributes}
      {...listeners}
      aria-label={label}
      title={t('moving/keys')}
    >
      <IconGripVertical size={16} />
    </button>
  );
  return (
    <li ref={setNodeRef} className={className} style={style} data-open={isOpen || undefined}>
      {children(grip)}
    </li>
  );
}
