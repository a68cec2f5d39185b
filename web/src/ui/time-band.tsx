/** A stretch of work or waiting, in seconds. */
export interface Stretch {
  readonly id: string;
  readonly seconds: number;
  readonly kind: 'work' | 'wait';
  readonly when: 'done' | 'now' | 'to-come';
  readonly title: string;
}

interface TimeBandProps {
  readonly stretches: readonly Stretch[];
  /** seconds that the full width stands for */
  readonly span: number;
  readonly label: string;
  readonly height?: number;
}

/** Work and waiting to scale: done is filled, now is the accent, to come is outlined, waiting is hatched. */
export function TimeBand({ stretches, span, label, height = 30 }: TimeBandProps) {
  const share = (seconds: number) => `${(100 * seconds) / span}%`;
  return (
    <div role="img" aria-label={label} className="flex w-full" style={{ height }}>
      {stretches
        .filter((each) => each.seconds > 0)
        .map((each) => (
          <div key={each.id} title={each.title} className={lookOf(each)} style={{ width: share(each.seconds) }} />
        ))}
    </div>
  );
}

function lookOf({ kind, when }: Stretch): string {
  const edge = 'h-full shrink-0 box-border border-y';
  if (kind === 'wait') return `${edge} hatched ${when === 'now' ? 'border-now bg-now-wash' : 'border-quiet'}`;
  if (when === 'done') return `${edge} border-done bg-done border-r-0`;
  if (when === 'now') return `${edge} border-now bg-now`;
  return `${edge} border-ink bg-sheet border-r border-r-hair`;
}
