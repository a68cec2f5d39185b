import type { ValidationErrorItem } from 'joi';
import { type DeviceMap, deviceMapSchema } from '../../model/device-map/index.ts';
import { misshapenAt, pathTo, type Problem, wrong } from '../../model/refusal/index.ts';
import { referenceErrors } from './references.ts';
import { stuckErrors } from './stuck.ts';
import { mapWarnings } from './warnings.ts';

export interface MapCheck {
  readonly errors: readonly Problem[];
  readonly warnings: readonly Problem[];
  /** the map, unknown fields and all, where there are no errors */
  readonly map?: DeviceMap;
}

/** Most messages of one kind in an answer: a broken file need not list every line. */
const MOST = 200;

/** Checks anything that was parsed from JSON. Never throws; nothing is changed or filled in. */
export function checkDeviceMap(json: unknown): MapCheck {
  const { error } = deviceMapSchema.validate(json, { abortEarly: false, convert: false });
  const details = error?.details ?? [];
  const unknown = details.filter((each) => each.type === 'object.unknown').map(unknownField);
  const shape = details.filter((each) => each.type !== 'object.unknown').map((each) => misshapenAt(each));
  if (shape.length > 0) return { errors: shape.slice(0, MOST), warnings: unknown.slice(0, MOST) };

  const map = json as DeviceMap;
  const references = referenceErrors(map);
  const errors = references.length > 0 ? references : stuckErrors(map);
  if (errors.length > 0) return { errors: errors.slice(0, MOST), warnings: unknown.slice(0, MOST) };
  return { errors: [], warnings: [...unknown, ...mapWarnings(map)].slice(0, MOST), map };
}

function unknownField(detail: ValidationErrorItem): Problem {
  return wrong(
    pathTo(detail.path),
    'This field is not known: it is kept, and nothing is computed from it.',
    'Correct its name, or leave it.',
  );
}
