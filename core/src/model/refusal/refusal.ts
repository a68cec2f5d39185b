/**
 * Why what was asked for can't be done, in words for whoever asked: what is wrong, and what to do. Whatever else is
 * thrown is a fault of ours and is never shown as an answer.
 */
export class Refusal extends Error {
  /** the field at fault */
  readonly path: string;

  constructor(message: string, path = 'body') {
    super(message);
    this.name = 'Refusal';
    this.path = path;
  }
}
