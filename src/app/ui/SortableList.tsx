import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { GripVertical } from 'lucide-react';
import type { ReactNode } from 'react';

/** A list whose rows are put into another order by dragging their grips, or by keys on them. */
export function SortableList({
  label,
  ids,
  onMove,
  className,
  children,
}: {
  label: string;
  ids: readonly string[];
  onMove: (from: number, to: number) => void;
  className?: string;
  children: ReactNode;
}) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={({ active, over }) => {
        const [from, to] = [ids.indexOf(String(active.id)), over ? ids.indexOf(String(over.id)) : -1];
        if (from >= 0 && to >= 0 && from !== to) onMove(from, to);
      }}
    >
      <SortableContext items={[...ids]} strategy={verticalListSortingStrategy}>
        <ul aria-label={label} className={className}>
          {children}
        </ul>
      </SortableContext>
    </DndContext>
  );
}

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
