import type { Question } from './question.ts';

/** A question to which there is nothing to say yet: what others begin with. */
export const NOTHING_ASKED: Question = {
  id: '',
  place: '',
  title: '',
  detail: '',
  hint: '',
  tool: null,
  cautions: [],
  why: '',
  list: [],
  field: null,
  wait: null,
  answers: [],
  choices: [],
};
