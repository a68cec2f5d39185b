import Joi from 'joi';
import { nameProblem } from '@nibrel/core/model/names';
import { decimal } from '../app/format.ts';
import { temperatureUnit, typedTemperature } from '../app/units.ts';

/** What has to be typed into a field, each with what is said where it is not. */

/** Words that can't be left out. @param cure what to do where there are none */
export const words = (cure: string, most = 1000) =>
  Joi.string().trim().max(most).required().messages({ 'string.empty': cure, 'any.required': cure });

/** A name that nobody takes for another, all of whose letters are seen. */
export const properName = (cure: string) =>
  words(cure, 60)
    .custom((value: string, helpers) => {
      const said = nameProblem(value);
      return said === null ? value : helpers.error('name.unclear', { said });
    })
    .messages({ 'name.unclear': 'It {{#said}}' });

/** Words that may be left out. */
export const note = (most = 2000) => Joi.string().trim().allow('').max(most);

/** One of a list, picked. */
export const picked = () => Joi.string().allow('');

interface Range {
  readonly least?: number;
  readonly over?: number;
  readonly most?: number;
  readonly isWhole?: boolean;
}

/** A number with a comma or a point. */
export const figure = (cure: string, { least = -Infinity, over = -Infinity, most = Infinity, isWhole }: Range = {}) =>
  Joi.any()
    .custom((value: unknown, helpers) => {
      const found = decimal(String(value ?? ''));
      const isIn = found !== null && found >= least && found > over && found <= most;
      return isIn && (!isWhole || Number.isInteger(found)) ? found : helpers.error('figure.none');
    })
    .messages({ 'figure.none': cure });

/** A temperature in the unit of this bench, as °C. */
export const temperatureTyped = () =>
  Joi.any()
    .custom((value: unknown, helpers) => typedTemperature(String(value ?? '')) ?? helpers.error('figure.none'))
    .messages({ 'figure.none': `A temperature in ${temperatureUnit()}` });

/** What the check of the core makes of it: a problem in words, or null. */
export const checkedBy = (problem: (value: string) => string | null) =>
  Joi.string()
    .trim()
    .allow('')
    .custom((value: string, helpers) => {
      const said = problem(value);
      return said === null ? value : helpers.error('checked.wrong', { said });
    })
    .messages({ 'checked.wrong': '{{#said}}' });

/** A number that is written some other way, as a share in percent; a hair beside its range is inside. */
export const readBy = (read: (typed: string) => number | null, cure: string, least: number, most: number) =>
  Joi.any()
    .custom((value: unknown, helpers) => {
      const found = read(String(value ?? ''));
      return found !== null && found >= least - HAIR && found <= most + HAIR ? found : helpers.error('figure.none');
    })
    .messages({ 'figure.none': cure });

const HAIR = 1e-9;
