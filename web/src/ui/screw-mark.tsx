import type { ScrewLetter } from '@nibrel/core/screws/screws';

/** A screw as letter and bar: the bar's length is the screw's, against the longest of the device; broken off where nobody has measured it. */
export function ScrewMark({ mark, ghost = false }: { readonly mark: ScrewLetter; readonly ghost?: boolean }) {
  const width = 12 + 58 * mark.share;
  return (
    <span className="inline-flex items-center gap-2">
      <span className="w-6 text-body font-bold">{mark.letter}</span>
      <svg aria-hidden="true" width="74" height="20" viewBox="0 0 74 20" className="shrink-0">
        <g
          fill={ghost ? 'none' : 'currentColor'}
          stroke="currentColor"
          strokeWidth="1.4"
          {...(ghost ? { strokeDasharray: '3 2.5' } : {})}
        >
          <path
            d={
              mark.isMeasured
                ? `M2 3.5h5.5v13H2z M7.5 7.2H${width}v5.6H7.5z`
                : 'M2 3.5h5.5v13H2z M7.5 7.2h9v5.6h-9z M20 7.2h5v5.6h-5z M29 7.2h3v5.6h-3z'
            }
          />
        </g>
      </svg>
    </span>
  );
}

/** The outline of a drive, seen from above. */
export function DriveMark({ drive, size = 34 }: { readonly drive: string; readonly size?: number }) {
  return (
    <svg aria-hidden="true" width={size} height={size} viewBox="-12 -12 24 24" className="shrink-0">
      <circle r="11" fill="none" stroke="currentColor" strokeWidth="1.3" />
      <path d={outlineOf(drive)} fill="currentColor" />
    </svg>
  );
}

function outlineOf(drive: string): string {
  if (/^PH/i.test(drive)) return 'M-1.6-7h3.2v5.4H7v3.2H1.6V7h-3.2V1.6H-7v-3.2h5.4z';
  if (/^(T|IP)\d/i.test(drive)) return lobes(6);
  if (/five-lobe/i.test(drive)) return lobes(5);
  if (/tri-point/i.test(drive)) return spokes(3);
  if (/slot/i.test(drive)) return 'M-7-1.5h14v3h-14z';
  if (/hex/i.test(drive)) return polygon(6, 7);
  if (/stand-off/i.test(drive)) return 'M-8-1.6h4.4v3.2H-8zM3.6-1.6H8v3.2H3.6z';
  return polygon(4, 6);
}

function lobes(count: number): string {
  const points = Array.from({ length: count * 2 }, (_, index) =>
    at((index * Math.PI) / count, index % 2 === 0 ? 7.5 : 4),
  );
  return `M${points.join('L')}Z`;
}

function spokes(count: number): string {
  const spoke = (angle: number) =>
    `M${at(angle - 0.25, 2)}L${at(angle - 0.18, 7.5)}L${at(angle + 0.18, 7.5)}L${at(angle + 0.25, 2)}Z`;
  const turns = Array.from({ length: count }, (_, index) => (index * 2 * Math.PI) / count - Math.PI / 2);
  return `M2.4 0A2.4 2.4 0 1 1-2.4 0A2.4 2.4 0 1 1 2.4 0Z${turns.map(spoke).join('')}`;
}

function polygon(count: number, radius: number): string {
  return `M${Array.from({ length: count }, (_, index) => at((index * 2 * Math.PI) / count, radius)).join('L')}Z`;
}

function at(angle: number, radius: number): string {
  return `${(Math.cos(angle) * radius).toFixed(2)} ${(Math.sin(angle) * radius).toFixed(2)}`;
}
