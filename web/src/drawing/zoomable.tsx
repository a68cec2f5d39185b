import { select } from 'd3-selection';
import { zoom, type ZoomBehavior, zoomIdentity } from 'd3-zoom';
import { type ReactNode, useEffect, useRef } from 'react';
import { useKeys } from '../app/keys.ts';

/** As near as a screw fills the hand. */
const NEAREST = 12;
/** After so long without a move it is drawn sharp again, ms. */
const SETTLED_MS = 400;

/**
 * A drawing that is zoomed by wheel or two fingers and moved by dragging; + and − and 0 do the same. What moves is a layer that
 * is painted once, however much is on it; it is painted anew, sharp, when it has come to rest.
 */
export function Zoomable({ children }: { readonly children: ReactNode }) {
  const frame = useRef<HTMLDivElement>(null);
  const layer = useRef<HTMLDivElement>(null);
  const behavior = useRef<ZoomBehavior<HTMLDivElement, unknown> | null>(null);
  useEffect(() => {
    const element = frame.current!;
    const moved = layer.current!;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const zoomed = zoom<HTMLDivElement, unknown>()
      .scaleExtent([1, NEAREST])
      .on('zoom', ({ transform }: { transform: { x: number; y: number; k: number } }) => {
        clearTimeout(timer);
        moved.style.willChange = 'transform';
        moved.style.transform = `translate(${transform.x}px, ${transform.y}px) scale(${transform.k})`;
        timer = setTimeout(() => {
          moved.style.willChange = 'auto';
        }, SETTLED_MS);
      })
      .on('start', () => {
        // the page may have another size by now
        zoomed.translateExtent([
          [0, 0],
          [element.clientWidth, element.clientHeight],
        ]);
      });
    select(element).call(zoomed).on('dblclick.zoom', null);
    behavior.current = zoomed;
    return () => {
      clearTimeout(timer);
      select(element).on('.zoom', null);
    };
  }, []);
  const by = (factor: number) => () => behavior.current?.scaleBy(select(frame.current!), factor);
  useKeys({
    '+': by(1.5),
    '=': by(1.5),
    '-': by(1 / 1.5),
    0: () => behavior.current?.transform(select(frame.current!), zoomIdentity),
  });
  return (
    <div ref={frame} className="relative h-full w-full touch-none overflow-hidden">
      <div ref={layer} className="h-full w-full origin-top-left will-change-transform">
        {children}
      </div>
    </div>
  );
}
