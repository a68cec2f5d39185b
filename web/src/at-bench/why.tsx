import type { Op } from '@nibrel/core/planner/drafts';
import { plural } from '@nibrel/core/planner/words';
import { Key } from '../ui/button.tsx';

interface WhyProps {
  readonly short: string;
  readonly op: Op;
  readonly isLong: boolean;
  onPress(): void;
}

/** Why now, in one line; at length, with what it takes, where it is asked. */
export function Why({ short, op, isLong, onPress }: WhyProps) {
  return (
    <div className="border-t border-hair pt-1 text-body text-quiet">
      <button
        type="button"
        className="flex min-h-12 w-full items-center justify-between gap-4 text-left"
        onClick={onPress}
      >
        <span>{short || 'Why now'}</span>
        <Key name="B" />
      </button>
      {isLong && (
        <p>
          {op.why} {op.whyNotEarlier} {timeWords(op)}
        </p>
      )}
    </div>
  );
}

/** How long it takes, and from what that is known. */
function timeWords({ seconds, low = seconds, high = seconds, timesFrom }: Op): string {
  if (seconds === 0) return '';
  const from = timesFrom === undefined ? 'a guess' : `from ${plural(timesFrom, 'time')} here`;
  return `Takes ${Math.round(low)} to ${Math.round(high)} s, ${from}.`;
}
