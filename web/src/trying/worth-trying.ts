import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { Op } from '@nibrel/core/planner/drafts';
import type { WhereToTry } from '@nibrel/core/bench/trying';
import { functionName } from '@nibrel/core/planner/words';
import { duration } from '../app/format.ts';

/** *Worth trying here: Picture, Touch. Takes 1 min, and spares 3 min more than that*; null where no trial pays before this step. */
export function worthTrying(map: DeviceMap, where: WhereToTry | null, op: Op): string | null {
  const trial = where?.trials.find(({ before }) => before === op.id);
  if (!trial) return null;
  const names = trial.functions.map((id) => functionName(map, id));
  return `Worth trying here: ${names.join(', ')}. Takes ${duration(trial.seconds)}, and is likely to spare ${duration(trial.spares_s)} more than that`;
}
