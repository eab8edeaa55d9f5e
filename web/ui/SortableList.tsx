import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  MouseSensor,
  TouchSensor,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { GripVertical } from "lucide-react";
import type { ReactNode } from "react";
import { DRAG_ANNOUNCEMENTS } from "./dragging";

/** A list whose items are moved by their handles, with the pointer or with Space and the arrow keys. */
export function SortableList({
  ids,
  label,
  className,
  onMove,
  children,
}: {
  ids: readonly string[];
  label: string;
  className?: string;
  /** Called when an item was dropped at another index. */
  onMove: (id: string, to: number) => void;
  children: ReactNode;
}) {
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 4 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 120, tolerance: 8 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const end = ({ active, over }: DragEndEvent) => {
    if (over && over.id !== active.id) onMove(String(active.id), ids.indexOf(String(over.id)));
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      accessibility={{ announcements: DRAG_ANNOUNCEMENTS }}
      onDragEnd={end}
    >
      <SortableContext items={[...ids]} strategy={verticalListSortingStrategy}>
        <ol className={className} aria-label={label}>
          {children}
        </ol>
      </SortableContext>
    </DndContext>
  );
}

/** An item of a sortable list, with its handle first. `name` is what is moved. */
export function SortableItem({
  id,
  name,
  className = "",
  children,
}: {
  id: string;
  name: string;
  className?: string;
  children: ReactNode;
}) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id, data: { name } });
  return (
    <li
      ref={setNodeRef}
      data-listed={id}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`${className} ${isDragging ? "relative z-10 opacity-60" : ""}`}
    >
      <button
        type="button"
        className="quiet min-h-6 min-w-6 shrink-0 cursor-grab touch-none"
        {...attributes}
        {...listeners}
        aria-label={`Move ${name}`}
        title={`Move ${name}`}
      >
        <GripVertical size={14} aria-hidden="true" className="mx-auto" />
      </button>
      {children}
    </li>
  );
}
