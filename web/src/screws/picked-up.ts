import type { EventData } from '@nibrel/core/job/events';
import { create } from 'zustand';
import { createJSONStorage, persist } from 'zustand/middleware';

export type PickedUp = EventData['spill']['loose'][number];

/** What was picked up after a spill, and not yet taken into the ledger. */
export interface PickedUps {
  readonly loose: readonly PickedUp[];
  /** some of it came from an instrument that only stands in for one */
  readonly simulated: boolean;
}

export const NONE_PICKED_UP: PickedUps = { loose: [], simulated: false };

interface Store {
  readonly byJob: Readonly<Record<string, PickedUps>>;
  set(job: string, change: (before: PickedUps) => PickedUps): void;
}

/** Kept while the window is open: measuring twenty screws is not done again because another page was looked at. */
export const usePickedUp = create<Store>()(
  persist(
    (set) => ({
      byJob: {},
      set: (job, change) => set(({ byJob }) => ({ byJob: { ...byJob, [job]: change(byJob[job] ?? NONE_PICKED_UP) } })),
    }),
    { name: 'nibrel.picked-up', storage: createJSONStorage(() => sessionStorage) },
  ),
);
