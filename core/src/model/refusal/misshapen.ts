import type { ValidationError, ValidationErrorItem } from 'joi';
import { type Problem, wrong } from './problem.ts';

/** What a schema found wrong, each by its field. Joi says what a field has to be, which is the cure. */
export function misshapen({ details }: Pick<ValidationError, 'details'>, within = ''): Problem[] {
  return details.map((detail) => misshapenAt(detail, within));
}

export function misshapenAt({ path, message }: ValidationErrorItem, within = ''): Problem {
  return wrong(pathTo(path, within), `${message.replaceAll('"', '')}.`);
}

/** `['joints', 3, 'under']` → `joints[3].under` */
export function pathTo(path: readonly (string | number)[], within = ''): string {
  return path.reduce<string>(
    (text, step) => (typeof step === 'number' ? `${text}[${step}]` : text ? `${text}.${step}` : step),
    within,
  );
}
