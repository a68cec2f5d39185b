import type { Turn, Turns } from '@nibrel/core/asking/question';

interface StageListProps {
  readonly turns: Turns;
  readonly turn: Turn | undefined;
  onJump(id: string): void;
}

/** What this stage asks, what is known of it by now, and a way to each. */
export function StageList({ turns, turn, onJump }: StageListProps) {
  return (
    <ol aria-label="What is asked here" className="border-t border-hair text-body">
      {turns.map((each) => (
        <li key={each.question.id} className="border-b border-hair last:border-b-0">
          <button
            type="button"
            aria-current={each === turn ? 'step' : undefined}
            onClick={() => onJump(each.question.id)}
            className={`flex min-h-9 w-full items-baseline justify-between gap-3 text-left hover:bg-mat pointer-coarse:min-h-12 ${each === turn ? 'font-bold text-now' : ''}`}
          >
            <span className="shrink-0">
              <span aria-hidden="true" className="mr-1 inline-block w-5">
                {each.isDone ? '✓' : '›'}
              </span>
              {each.name}
            </span>
            <span className={`truncate text-note ${each.isDone ? 'text-done' : 'text-quiet'}`}>{each.said}</span>
          </button>
        </li>
      ))}
    </ol>
  );
}
