import { type Answer, given, type Gives, type Question } from '@nibrel/core/asking/question';
import { problemText } from '@nibrel/core/model/refusal';
import { useRef, useState } from 'react';

interface Typed {
  readonly of: string;
  readonly text: string;
}

/** What was typed, over what stood there. */
interface Written extends Typed {
  readonly over: string;
}

/**
 * What stands in a question's field; what is wrong with it is said there, and nothing that was typed is lost. The field of
 * a main answer has the focus from the beginning, unless something stands in it already.
 */
export function useField(question: Question, act: (gives: Gives) => Promise<boolean> | false) {
  const [typed, setTyped] = useState<Written | null>(null);
  const [problem, setProblem] = useState<Typed | null>(null);
  const ref = useRef<HTMLInputElement>(null);
  const { id, field, answers } = question;
  const start = field?.start ?? '';
  const own = typed?.of === id ? typed : null;
  const value = own?.text ?? start;
  const isWanted = field !== null && !field.start && answers[0]?.weight === 'main' && answers[0].takes !== undefined;
  const give = (answer: Answer) => {
    const found = given(answer, field, value, () => crypto.randomUUID());
    if ('gives' in found) {
      setProblem(null);
      // what was written stays until it is taken
      void Promise.resolve(act(found.gives)).then((isTaken) => isTaken && answer.takes && setTyped(null));
      return;
    }
    ref.current?.focus();
    setProblem({ of: id, text: problemText(found) });
  };
  return {
    give,
    /** for a `FieldAsked` */
    shown: {
      value,
      isWanted,
      problem: problem?.of === id ? problem.text : null,
      ref,
      /** what another window said while something else was typed here, and how to take it */
      offered: own && own.over !== start && own.text !== start ? { said: start, take: () => setTyped(null) } : null,
      onValue: (text: string) => setTyped({ of: id, text, over: own?.over ?? start }),
      /** Enter is the answer that takes it */
      onEnter: () => {
        const taking = answers.find(({ takes }) => takes !== undefined);
        if (taking && taking.notNow === undefined) give(taking);
      },
    },
  };
}
