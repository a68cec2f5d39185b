import type { DeviceMap } from '../../model/device-map/index.ts';
import type { Op } from '../../planner/drafts/index.ts';
import { functionName, duration } from '../../planner/words/index.ts';
import type { WhereToTry } from './where-to-try.ts';

/** *Worth trying here: Picture, Touch. Takes 1 min, and spares 3 min more than that*; null where no trial pays before this step. */
export function worthTrying(map: DeviceMap, where: WhereToTry | null, op: Op): string | null {
  const trial = where?.trials.find(({ before }) => before === op.id);
  if (!trial) return null;
  const names = trial.functions.map((id) => functionName(map, id));
  return `Worth trying here: ${names.join(', ')}. Takes ${duration(trial.seconds)}, and is likely to spare ${duration(trial.spares_s)} more than that`;
}
