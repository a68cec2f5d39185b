import type { Answer, AskedField, Line, Question } from '@nibrel/core/asking/question';
import { bitMark, capital } from '@nibrel/core/planner/words';
import { type ReactNode, type Ref } from 'react';
import { Key } from '../ui/button.tsx';
import { Caution } from '../ui/caution.tsx';
import { Field } from '../ui/field.tsx';
import { Offered } from '../ui/offered.tsx';
import { DriveMark } from '../ui/screw-mark.tsx';

interface AskedProps {
  readonly question: Question;
  /** how the region is called */
  readonly name: string;
  readonly isAhead?: string | null;
  /** what has to be seen before the list */
  readonly lead?: ReactNode;
  /** what belongs to the question and has no place in its data */
  readonly children?: ReactNode;
  readonly why?: ReactNode;
  readonly field?: ReactNode;
  onLine?(line: Line): void;
  onChoice?(choice: Answer): void;
  /** what belongs to one of the lines */
  renderLine?(line: Line): ReactNode;
}

/** What is asked: its caution first, then what to do in the largest type, with what, and why now. */
export function Asked({
  question,
  name,
  isAhead,
  lead,
  children,
  why,
  field,
  onLine,
  onChoice,
  renderLine,
}: AskedProps) {
  const { cautions, place, title, detail, tool, hint, list, choices } = question;
  // nothing is asked yet
  if (question.id === 'planning') return <p className="p-6 text-far text-quiet">{title}</p>;
  return (
    <section aria-label={name} className="flex grow flex-col">
      {cautions.map(({ text, isKnown }) => (
        <Caution key={text} isKnown={isKnown}>
          {text}
        </Caution>
      ))}
      <div className="flex grow flex-col gap-3 px-6 pt-4 pb-4">
        <p className="text-body text-quiet">{isAhead ?? place}</p>
        <div aria-live="polite">
          <h1 className="text-loud leading-[1.08] font-bold">{title}</h1>
          {detail && <p className="mt-1 text-far leading-tight">{detail}</p>}
        </div>
        {tool && (
          <p className="flex items-center gap-3 text-lead">
            {tool.isDriver && <DriveMark drive={tool.name} />}
            {capital(bitMark(tool.name))}
          </p>
        )}
        {lead}
        {hint && <p className="text-lead text-quiet">{hint}</p>}
        {field}
        {choices.length > 0 && <Choices choices={choices} onChoice={onChoice} />}
        {list.length > 0 && <Lines list={list} onLine={onLine} renderLine={renderLine} />}
        {children}
        {why && <div className="mt-auto">{why}</div>}
      </div>
    </section>
  );
}

interface ChoicesProps {
  readonly choices: readonly Answer[];
  readonly onChoice: AskedProps['onChoice'];
}

/** Many things of which one is chosen, in two columns; the first have their digit. */
function Choices({ choices, onChoice }: ChoicesProps) {
  return (
    <ul aria-label="Choose" className="grid grid-cols-2 gap-2 md:max-lg:grid-cols-4">
      {choices.map((choice) => (
        <li key={choice.id}>
          <button
            type="button"
            data-choice={choice.id}
            disabled={choice.notNow !== undefined}
            onClick={() => onChoice?.(choice)}
            className="flex min-h-12 w-full items-center justify-between gap-2 border border-hair bg-sheet px-3 text-left text-body leading-tight font-semibold hover:border-ink hover:bg-mat"
          >
            <span>{choice.label}</span>
            {choice.key && <Key name={choice.key} />}
          </button>
        </li>
      ))}
    </ul>
  );
}

interface LinesProps {
  readonly list: readonly Line[];
  readonly onLine: AskedProps['onLine'];
  readonly renderLine: AskedProps['renderLine'];
}

/** What belongs to it, numbered as on the drawing; each may be pressed by itself where that does something. */
function Lines({ list, onLine, renderLine }: LinesProps) {
  const isDrawn = list.some(({ at }) => at !== null);
  return (
    <ol aria-label="In this step" className={`flex flex-col ${isDrawn ? 'text-lead' : 'text-body'}`}>
      {list.map((line, at) => {
        const content = (
          <>
            {isDrawn ? <Numbered number={at + 1} /> : <Sign line={line} />}
            <span className={isDrawn ? '' : 'flex grow flex-wrap justify-between gap-x-3'}>
              <span className={isDrawn && at === 0 ? 'font-bold' : ''}>{line.text}</span>
              {line.more && <span className="block text-body text-quiet">{line.more}</span>}
            </span>
          </>
        );
        const row = `flex w-full items-center gap-3 py-1 text-left ${isDrawn ? 'min-h-12' : 'min-h-8 pointer-coarse:min-h-12'}`;
        return (
          <li key={line.id} className="border-b border-hair">
            {line.gives && onLine ? (
              <button
                type="button"
                {...(line.gives.kind === 'mark' ? { 'aria-pressed': line.isDone } : {})}
                className={`${row} hover:bg-mat`}
                onClick={() => onLine(line)}
              >
                {content}
              </button>
            ) : (
              <span className={row}>{content}</span>
            )}
            {renderLine?.(line)}
          </li>
        );
      })}
    </ol>
  );
}

function Numbered({ number }: { readonly number: number }) {
  return (
    <span
      aria-hidden="true"
      className="inline-flex size-7 shrink-0 items-center justify-center rounded-full border-2 border-now text-note font-bold text-now"
    >
      {number}
    </span>
  );
}

/** A box only where something is ticked: what is done, or is said to be; an arrow where a press leads on. */
function Sign({ line: { isDone, gives } }: { readonly line: Line }) {
  const isTicked = isDone || gives?.kind === 'mark';
  const look = !isTicked ? 'text-quiet' : isDone ? 'border-2 border-done text-done' : 'border-2 border-quiet';
  return (
    <span
      aria-hidden="true"
      className={`inline-flex size-5 shrink-0 items-center justify-center text-note font-bold ${look}`}
    >
      {isDone ? '✓' : isTicked ? '' : gives ? '›' : '–'}
    </span>
  );
}

interface AskedFieldProps {
  readonly field: AskedField;
  readonly value: string;
  readonly problem: string | null;
  readonly offered: { readonly said: string; take(): void } | null;
  /** the main answer needs it: it has the focus */
  readonly isWanted: boolean;
  readonly ref?: Ref<HTMLInputElement>;
  onValue(value: string): void;
  /** Enter is the answer that takes it */
  onEnter(): void;
}

/** The word or figure that is wanted, with its unit behind it. */
export function FieldAsked({ field, value, problem, isWanted, offered, ref, onValue, onEnter }: AskedFieldProps) {
  const label = field.unit ? `${field.label}, ${field.unit}` : field.label;
  return (
    <div className="flex flex-col gap-2">
      <Field
        label={label}
        value={value}
        maxLength={2000}
        autoComplete="off"
        autoFocus={isWanted}
        {...(field.kind === 'figure' ? { inputMode: 'decimal' as const } : {})}
        {...(problem === null ? {} : { problem })}
        {...(ref ? { ref } : {})}
        onChange={(event) => onValue(event.target.value)}
        onKeyDown={(event) => {
          // out of the field, so that keys are answers again
          if (event.key === 'Escape') {
            event.currentTarget.blur();
            event.stopPropagation();
          }
          if (event.key !== 'Enter') return;
          event.preventDefault();
          onEnter();
        }}
      />
      {offered && <Offered said={offered.said} onTake={offered.take} />}
    </div>
  );
}
