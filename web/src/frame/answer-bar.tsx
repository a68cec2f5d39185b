import type { Answer, Wait } from '@nibrel/core/asking/question';
import { countdown } from '@nibrel/core/planner/words';
import { Key } from '../ui/button.tsx';

interface AnswerBarProps {
  readonly answers: readonly Answer[];
  readonly always: readonly Answer[];
  /** stands where the main answer would */
  readonly wait?: Wait | null;
  /** what was said is being saved: nothing else is said meanwhile */
  readonly isBusy?: boolean;
  onGive(answer: Answer): void;
}

/** On an upright tablet so many stand in the upper row. */
const UPPER = 3;

/** So many answers need the room. */
const MANY = 4;

/** Every answer as a button, the same height and place on every screen; Undo, Something is wrong and Stop at the right. */
export function AnswerBar({ answers, always, wait = null, isBusy = false, onGive }: AnswerBarProps) {
  const upper = answers.slice(0, wait ? UPPER - 1 : UPPER);
  const lower = answers.slice(upper.length);
  const shown = (answer: Answer) => (
    <AnswerButton
      key={answer.id}
      answer={answer.weight === 'main' && isBusy ? { ...answer, label: 'Saving', notNow: 'Saving' } : answer}
      onGive={onGive}
      // where there is much to say, what can always be said has no room for its letter
      isKeyless={answers.length >= MANY && always.includes(answer)}
    />
  );
  return (
    <nav
      aria-label="Answers"
      className="no-print sticky bottom-0 z-10 flex flex-wrap content-start short:gap-1.5 short:py-1.5 md:max-lg:min-h-[158px] gap-2.5 border-t border-ink bg-paper px-4 py-2.5 lg:flex-nowrap"
    >
      {(upper.length > 0 || wait) && (
        <div className="flex min-w-0 basis-full flex-wrap gap-2.5 md:flex-nowrap lg:contents">
          {wait && <WaitBar {...wait} />}
          {upper.map(shown)}
        </div>
      )}
      <div className="flex min-w-0 basis-full flex-wrap gap-2.5 md:flex-nowrap lg:contents">
        {lower.map(shown)}
        {answers.length === 0 && !wait && <span className="grow" />}
        {always.map(shown)}
      </div>
    </nav>
  );
}

const LOOKS: Readonly<Record<Answer['weight'], string>> = {
  main: 'grow-[6] basis-full short:basis-[40%] border-ink bg-ink text-lead text-paper hover:border-now hover:bg-now md:basis-48',
  plain: 'grow basis-[40%] border-ink bg-sheet hover:bg-mat md:basis-36',
  warning: 'grow basis-[40%] border-now bg-sheet text-now hover:bg-now-wash md:basis-36',
  quiet: 'grow basis-[28%] border-transparent hover:border-hair md:basis-24 lg:grow-0 lg:basis-auto lg:px-2.5',
};

const NOT_NOW = 'border-hair! bg-transparent! text-quiet!';

interface AnswerButtonProps {
  readonly answer: Answer;
  readonly isKeyless: boolean;
  onGive(answer: Answer): void;
}

function AnswerButton({ answer, isKeyless, onGive }: AnswerButtonProps) {
  const { weight, label, key, notNow, id } = answer;
  // what is being saved keeps its look: it is over in a moment
  const looks = notNow === undefined || notNow === label ? LOOKS[weight] : `${LOOKS[weight]} ${NOT_NOW}`;
  return (
    <button
      type="button"
      data-answer={id}
      {...(weight === 'main' ? { 'data-step': '' } : {})}
      disabled={notNow !== undefined}
      onClick={() => onGive(answer)}
      className={`inline-flex min-h-15 short:min-h-12 min-w-0 items-center justify-between gap-2 border px-3.5 text-left text-body leading-tight font-semibold md:h-15 lg:h-16 ${looks} ${id === 'stop' ? 'md:max-w-32' : ''}`}
    >
      <span>
        {label}
        {notNow !== undefined && notNow !== label && <span className="block text-note font-normal">{notNow}</span>}
      </span>
      {!isKeyless && <Key name={keyName(key)} />}
    </button>
  );
}

/** *Space*, *←*, *T* */
export function keyName(key: string): string {
  return KEY_NAMES[key] ?? (key.length === 1 ? key.toUpperCase() : key);
}

const KEY_NAMES: Readonly<Record<string, string>> = { ' ': 'Space', ArrowLeft: '←', ArrowRight: '→' };

/** What runs down, as a bar that fills; it takes no press. */
function WaitBar({ label, left_s, share }: Wait) {
  return (
    <div
      role="timer"
      aria-label="Time left"
      data-step=""
      className="relative flex min-h-15 short:min-h-12 grow-[6] basis-full short:basis-[40%] items-center justify-between gap-3 border border-hair bg-sheet px-4 text-lead leading-tight md:h-15 md:basis-72 lg:h-16"
    >
      <span
        aria-hidden="true"
        className="hatched absolute inset-y-0 left-0 border-r-2 border-quiet"
        style={{ width: `${Math.round((share ?? 0) * 1000) / 10}%` }}
      />
      <span className="relative bg-sheet px-1">{label}</span>
      {left_s !== null && <strong className="relative bg-sheet px-1 text-now">{countdown(left_s)}</strong>}
    </div>
  );
}
