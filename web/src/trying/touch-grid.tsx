import { type PointerEvent, useRef, useState } from 'react';

interface TouchGridProps {
  readonly columns: number;
  readonly rows: number;
}

/** Fields as wide as a finger over the whole screen: each that was touched is filled, what stays empty does not answer. */
export function TouchGrid({ columns, rows }: TouchGridProps) {
  const [touched, setTouched] = useState<ReadonlySet<number>>(new Set());
  const grid = useRef<HTMLElement>(null);
  const touch = ({ clientX, clientY }: { readonly clientX: number; readonly clientY: number }) => {
    const box = grid.current!.getBoundingClientRect();
    const column = Math.floor(((clientX - box.left) / box.width) * columns);
    const row = Math.floor(((clientY - box.top) / box.height) * rows);
    if (column < 0 || row < 0 || column >= columns || row >= rows) return;
    const field = row * columns + column;
    setTouched((before) => (before.has(field) ? before : new Set([...before, field])));
  };
  // a quick stroke is told in a few points: those between come with it
  const draw = (event: PointerEvent) => {
    if (event.buttons === 0 && event.pointerType === 'mouse') return;
    const all = event.nativeEvent.getCoalescedEvents?.() ?? [];
    for (const each of all.length > 0 ? all : [event]) touch(each);
  };
  const left = columns * rows - touched.size;
  return (
    <main
      ref={grid}
      className="grid h-dvh w-full touch-none select-none"
      style={{ gridTemplateColumns: `repeat(${columns}, 1fr)`, gridTemplateRows: `repeat(${rows}, 1fr)` }}
      onPointerDown={draw}
      onPointerMove={draw}
    >
      {Array.from({ length: columns * rows }, (_, field) => (
        <span
          key={field}
          aria-hidden="true"
          className={`border border-hair ${touched.has(field) ? 'bg-done' : 'bg-paper'}`}
        />
      ))}
      <output
        aria-live="polite"
        className="pointer-events-none fixed inset-x-0 top-1/2 mx-auto w-fit bg-sheet px-3 text-far font-bold"
      >
        {left === 0 ? 'Every field answers' : `${left} left`}
      </output>
    </main>
  );
}
