import { type BondJoint, tabsOf } from '@nibrel/core/model/device-map';
import type { JobState } from '@nibrel/core/job/state';
import { capital, tabName } from '@nibrel/core/planner/words';

/** Tabs or straps that are pulled one by one, in the printed order: each a tick of its own, empty until it is out. */
export function Tabs({ state, bond }: { readonly state: JobState; readonly bond: BondJoint }) {
  const tabs = tabsOf(bond);
  if (tabs.length === 0) return null;
  const out = state.opening.cut.get(bond.id);
  return (
    <ol aria-label="Tabs" className="text-lead">
      {tabs.map(({ id }) => (
        <li key={id} className="flex min-h-12 items-center gap-3 border-b border-hair">
          <span aria-hidden="true" className={`w-6 ${out?.has(id) ? 'text-done' : 'text-quiet'}`}>
            {out?.has(id) ? '✓' : '□'}
          </span>
          {capital(tabName(bond, id))}
          {out?.has(id) && <span className="sr-only"> is out</span>}
        </li>
      ))}
    </ol>
  );
}
