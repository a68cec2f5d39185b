export { costWords, type Figures, figuresOf } from './figures.ts';
export { type Question, QUESTIONS, questionsFor } from './questions.ts';
