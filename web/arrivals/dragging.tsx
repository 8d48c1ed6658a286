import { useDraggable, useDroppable } from '@dnd-kit/core';
import type { KeyboardEvent, ReactNode } from 'react';
import type { Place } from './arranging';

const idOf = (at: Place): string => `${at.document}:${at.page}`;

/** A page that can be dragged to another place. The keyboard moves it in ways of its own. */
export function DraggedPage({
  at,
  off,
  label,
  onKeyDown,
  children,
}: {
  at: Place;
  off: boolean;
  label: string;
  onKeyDown(e: KeyboardEvent): void;
  children: ReactNode;
}) {
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({ id: idOf(at), data: at, disabled: off });
  return (
    <div
      ref={setNodeRef}
      {...listeners}
      tabIndex={0}
      role="group"
      aria-label={label}
      data-page={idOf(at)}
      onKeyDown={onKeyDown}
      className={`rounded border hair bg-base-100 outline-offset-2 ${isDragging ? 'relative z-20 opacity-80 shadow-lg' : ''}`}
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
    >
      {children}
    </div>
  );
}

/** Where a dragged page can be let go: before the page that is here, or at the end of a document. */
export function DropPlace({ at, off = false, className, children }: { at: Place; off?: boolean; className: string; children: ReactNode }) {
  const { setNodeRef, isOver } = useDroppable({ id: `to ${idOf(at)}`, data: at, disabled: off });
  return (
    <div ref={setNodeRef} className={`${className} ${isOver ? 'ring-2 ring-primary' : ''}`}>
      {children}
    </div>
  );
}
