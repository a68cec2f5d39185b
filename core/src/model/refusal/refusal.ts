import type { Problem } from './problem.ts';

/**
 * Why what was asked for can't be done, in words for whoever asked. Whatever else is thrown is a fault of ours and is
 * never shown as an answer.
 */
export class Refusal extends Error implements Problem {
  readonly path: string;
  readonly cure: string;

  constructor({ path, message, cure }: Problem) {
    super(message);
    this.name = 'Refusal';
    this.path = path;
    this.cure = cure;
  }
}
