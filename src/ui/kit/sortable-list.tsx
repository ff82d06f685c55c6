'use client';
import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { type ReactNode, useMemo } from 'react';

/** A list that can be put in another order, by drag or (space, arrows, space) by keyboard. @param id tells it from others on the page */
export function SortableList({
  id,
  label,
  className,
  ids,
  onMove,
  children,
}: {
  id: string;
  label: string;
  className?: string;
  ids: readonly string[];
  onMove: (id: string, to: string) => void;
  children: ReactNode;
}) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const joined = ids.join(' ');
  // The same order is the same list: typing in a line must not stir the other five hundred.
  const items = useMemo(() => joined.split(' '), [joined]);
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (over && over.id !== active.id) onMove(String(active.id), String(over.id));
  };
  return (
    <DndContext id={id} sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd}>
      <SortableContext items={items} strategy={verticalListSortingStrategy}>
        <ol aria-label={label} className={className}>
          {children}
        </ol>
      </SortableContext>
    </DndContext>
  );
}
