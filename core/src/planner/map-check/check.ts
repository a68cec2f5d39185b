import type { ValidationErrorItem } from 'joi';
import { type DeviceMap, deviceMapSchema } from '../../model/device-map/index.ts';
import type { Finding } from './finding.ts';
import { referenceErrors } from './references.ts';
import { stuckErrors } from './stuck.ts';
import { mapWarnings } from './warnings.ts';

export interface MapCheck {
  readonly errors: readonly Finding[];
  readonly warnings: readonly Finding[];
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
  const shape = details.filter((each) => each.type !== 'object.unknown').map(finding);
  if (shape.length > 0) return { errors: shape.slice(0, MOST), warnings: unknown.slice(0, MOST) };

  const map = json as DeviceMap;
  const references = referenceErrors(map);
  const errors = references.length > 0 ? references : stuckErrors(map);
  if (errors.length > 0) return { errors: errors.slice(0, MOST), warnings: unknown.slice(0, MOST) };
  return { errors: [], warnings: [...unknown, ...mapWarnings(map)].slice(0, MOST), map };
}

function finding(detail: ValidationErrorItem): Finding {
  return { path: pathOf(detail.path), message: `${detail.message.replaceAll('"', '')}.` };
}

function unknownField(detail: ValidationErrorItem): Finding {
  return {
    path: pathOf(detail.path),
    message: 'This field is not known. It is kept, and nothing is computed from it.',
  };
}

/** `['joints', 3, 'under']` → `joints[3].under` */
export function pathOf(path: readonly (string | number)[]): string {
  return path.reduce<string>(
    (text, step) => (typeof step === 'number' ? `${text}[${step}]` : text ? `${text}.${step}` : step),
    '',
  );
}
