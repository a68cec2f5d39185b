import { type ReactNode, useCallback, useEffect, useRef, useState } from 'react';

interface ScrolledProps {
  readonly label: string;
  /** things in it that are marked `data-lies` are counted */
  readonly children: ReactNode;
}

/** A list that scrolls, and says how many things are out of sight below. */
export function Scrolled({ label, children }: ScrolledProps) {
  const ref = useRef<HTMLDivElement>(null);
  const [below, setBelow] = useState(0);
  const look = useCallback(() => {
    const box = ref.current;
    if (!box) return;
    const end = box.getBoundingClientRect().bottom;
    const things = [...box.querySelectorAll('[data-lies]')];
    setBelow(things.filter((each) => each.getBoundingClientRect().bottom > end + 1).length);
  }, []);
  useEffect(() => {
    const box = ref.current;
    if (!box) return;
    const observer = new ResizeObserver(look);
    observer.observe(box);
    return () => observer.disconnect();
  }, [look]);
  // what lies there has changed
  useEffect(look, [look, children]);
  return (
    <>
      <div
        ref={ref}
        className="flex min-h-0 flex-col gap-3 overflow-y-auto"
        tabIndex={0}
        role="group"
        aria-label={label}
        onScroll={look}
      >
        {children}
      </div>
      {below > 0 && (
        <button
          type="button"
          className="min-h-10 border-t border-quiet text-left text-body font-bold"
          onClick={() => ref.current?.scrollBy({ top: ref.current.clientHeight * 0.8, behavior: 'smooth' })}
        >
          {below} more below
        </button>
      )}
    </>
  );
}
