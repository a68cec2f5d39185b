import type { Op } from '@nibrel/core/planner/drafts';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { bondInHand, sourceFor } from '@nibrel/core/bench/in-hand';
import type { JobState } from '@nibrel/core/job/state';
import { useEffect } from 'react';

/** The source of the next bond that is warmed is found out while nobody presses anything, and is known when it comes. */
export function useSourceAhead(map: DeviceMap, state: JobState, ops: readonly Op[]): void {
  useEffect(() => {
    const next = ops.find(({ name }) => name === 'heat');
    const bond = bondInHand(map, next);
    if (!bond || !('requestIdleCallback' in globalThis)) return;
    const idle = requestIdleCallback(() => void sourceFor(map, state, bond, next));
    return () => cancelIdleCallback(idle);
  }, [map, state, ops]);
}
