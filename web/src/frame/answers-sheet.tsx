import type { Answer, Question } from '@nibrel/core/asking/question';
import { Key } from '../ui/button.tsx';
import { Panel } from '../ui/panel.tsx';
import { keyName } from './answer-bar.tsx';

interface AnswersSheetProps {
  readonly question: Question;
  readonly open: boolean;
  onClose(): void;
  onGive(answer: Answer): void;
}

/** A question that is asked beside the work: each of its answers a button, and a key while it is open. */
export function AnswersSheet({ question, open, onClose, onGive }: AnswersSheetProps) {
  const give = (answer: Answer) => {
    onClose();
    onGive(answer);
  };
  return (
    <Panel
      title={question.title}
      open={open}
      onClose={onClose}
      onKey={(key) => {
        const answer = question.answers.find(
          (each) => [each.key, each.also].includes(key) && each.notNow === undefined,
        );
        if (answer) give(answer);
        return answer !== undefined;
      }}
    >
      <div className="grid gap-2 sm:grid-cols-2">
        {question.answers.map((answer) => (
          <button
            key={answer.id}
            type="button"
            disabled={answer.notNow !== undefined}
            onClick={() => give(answer)}
            className={`flex min-h-13 items-center justify-between gap-3 border px-4 text-left text-body leading-tight font-semibold hover:bg-mat disabled:opacity-45 ${answer.weight === 'quiet' ? 'border-hair' : 'border-ink'}`}
          >
            <span>{answer.label}</span>
            <Key name={keyName(answer.key)} />
          </button>
        ))}
      </div>
    </Panel>
  );
}
