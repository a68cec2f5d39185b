import { Slider } from 'radix-ui';

interface SlideProps {
  readonly label: string;
  /** the value in words, shown beside it */
  readonly said: string;
  readonly value: number;
  readonly min: number;
  readonly max: number;
  readonly step: number;
  readonly bare?: boolean;
  onChange(value: number): void;
}

/** A figure that is drawn along a line; arrows, Page and Home keys move it as well. */
export function Slide({ label, said, value, min, max, step, bare = false, onChange }: SlideProps) {
  return (
    <div>
      {!bare && (
        <div className="flex items-baseline justify-between text-body">
          <span className="text-quiet">{label}</span>
          <span className="font-bold">{said}</span>
        </div>
      )}
      <Slider.Root
        min={min}
        max={max}
        step={step}
        value={[value]}
        onValueChange={([next]) => next !== undefined && onChange(next)}
        className="relative flex h-12 grow touch-none items-center"
      >
        <Slider.Track className="relative h-1 grow bg-hair">
          <Slider.Range className="absolute h-full bg-ink" />
        </Slider.Track>
        <Slider.Thumb aria-label={label} aria-valuetext={said} className="block size-7 border-2 border-ink bg-sheet" />
      </Slider.Root>
    </div>
  );
}
