import {
  type Announcements,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import type { ReactNode } from 'react';

interface PartDragProps {
  readonly names: readonly string[];
  /** One part was dropped on another. */
  readonly onJoin: (onto: number, dropped: number) => void;
  readonly children: ReactNode;
}

/** Lets parts be dropped on one another, by mouse, pen and keys. */
export function PartDrag({ names, onJoin, children }: PartDragProps) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor),
  );
  const end = ({ active, over }: DragEndEvent) => {
    if (over && over.id !== active.id) onJoin(Number(over.id), Number(active.id));
  };
  return (
    <DndContext
      sensors={sensors}
      onDragEnd={end}
      accessibility={{ announcements: announcementsOf(names), screenReaderInstructions: INSTRUCTIONS }}
    >
      {children}
    </DndContext>
  );
}

const INSTRUCTIONS = {
  draggable:
    'To join this part with another, press Enter, go to the other with the arrow keys, and press Enter again.',
};

function announcementsOf(names: readonly string[]): Announcements {
  const name = (id: string | number) => names[Number(id)] || 'Unnamed';
  return {
    onDragStart: ({ active }) => `${name(active.id)} is held.`,
    onDragOver: ({ active, over }) =>
      over && over.id !== active.id ? `${name(active.id)} would join ${name(over.id)}.` : undefined,
    onDragEnd: ({ active, over }) =>
      over && over.id !== active.id ? `${name(active.id)} joined ${name(over.id)}.` : 'Nothing was joined.',
    onDragCancel: () => 'Nothing was joined.',
  };
}

interface PartNameProps {
  readonly part: number;
  readonly name: string;
  readonly canMove: boolean;
}

/** The name of a part, which is what a hand takes hold of and drops on. */
export function PartName({ part, name, canMove }: PartNameProps) {
  const drag = useDraggable({ id: part, disabled: !canMove });
  const drop = useDroppable({ id: part, disabled: !canMove });
  const { transform } = drag;
  return (
    <span
      ref={(element) => {
        drag.setNodeRef(element);
        drop.setNodeRef(element);
      }}
      className="parts-name"
      data-over={drop.isOver && drop.active?.id !== part}
      style={
        transform ? { transform: `translate(${transform.x}px, ${transform.y}px)`, zIndex: 5 } : undefined
      }
      {...(canMove && { ...drag.attributes, ...drag.listeners })}
    >
      {name}
    </span>
  );
}
