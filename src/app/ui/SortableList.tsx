import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { GripVertical } from 'lucide-react';
import { memo, type ReactNode, useCallback, useMemo } from 'react';
import { useLatest } from '../keys/useLatest';

/** A list whose rows are put into another order by dragging their grips, or by keys on them. */
export const SortableList = memo(function SortableList({
  label,
  count,
  onMove,
  className,
  row,
}: {
  label: string;
  count: number;
  onMove: (from: number, to: number) => void;
  className?: string;
  /** The row at a place; it is drawn again when what it shows has changed. */
  row: (index: number) => ReactNode;
}) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const ids = useMemo(() => Array.from({ length: count }, (_, i) => rowId(i)), [count]);
  const latest = useLatest(onMove);
  const dragEnd = useCallback(
    ({ active, over }: DragEndEvent) => {
      const [from, to] = [ids.indexOf(String(active.id)), over ? ids.indexOf(String(over.id)) : -1];
      if (from >= 0 && to >= 0 && from !== to) latest.current(from, to);
    },
    [ids, latest],
  );
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={dragEnd}>
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        <ul aria-label={label} className={className}>
          {ids.map((_, i) => row(i))}
        </ul>
      </SortableContext>
    </DndContext>
  );
});

/** What a row is called within its list. */
export const rowId = (index: number): string => `row ${index}`;

/** One row of such a list, with its grip before it. */
export function SortableRow({
  id,
  grip,
  className,
  children,
}: {
  id: string;
  grip: string;
  className?: string;
  children: ReactNode;
}) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition } = useSortable({ id });
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`flex items-center gap-1 rounded-md px-1 ${className ?? ''}`}
    >
      <button
        type="button"
        ref={setActivatorNodeRef}
        {...attributes}
        {...listeners}
        data-keeps-keys
        aria-label={grip}
        className="cursor-grab touch-none rounded p-0.5 text-quiet hover:text-ink"
      >
        <GripVertical size={12} />
      </button>
      {children}
    </li>
  );
}
