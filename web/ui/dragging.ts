import { type Announcements, MouseSensor, TouchSensor, useSensor, useSensors } from "@dnd-kit/core";
import { getEventCoordinates } from "@dnd-kit/utilities";

interface Named {
  data: { current?: { name?: string } | undefined };
}
const nameOf = (one: Named | null): string => one?.data.current?.name ?? "";

/** What screen readers say of a drag: names of what is moved, which draggables and droppables give as `data.name`. */
export const DRAG_ANNOUNCEMENTS: Announcements = {
  onDragStart: ({ active }) => `Picked up ${nameOf(active)}.`,
  onDragOver: ({ over }) => (over ? `Over ${nameOf(over)}.` : undefined),
  onDragEnd: ({ active, over }) => (over ? `Dropped ${nameOf(active)} at ${nameOf(over)}.` : "Dropped at no place."),
  onDragCancel: ({ active }) => `Left ${nameOf(active)} where it was.`,
};

// The same objects at each render: with new ones, everything that can be dragged would be drawn again.
const MOUSE = { activationConstraint: { distance: 5 } };
const TOUCH = { activationConstraint: { delay: 220, tolerance: 8 } };

/** Returns the sensors of a drag: the mouse after some pixels, a finger after a short hold, so that it can scroll too. */
export function useDragSensors() {
  return useSensors(useSensor(MouseSensor, MOUSE), useSensor(TouchSensor, TOUCH));
}

/** Returns where a drag began, in CSS pixels of the window, for a mouse or a finger. */
export const startOf = (event: Event) => getEventCoordinates(event) ?? { x: 0, y: 0 };
