import { jointById, partById } from '@nibrel/core/model/device-map';
import type { Op } from '@nibrel/core/planner/drafts';
import type { Mechanism } from '@nibrel/core/planner/holds';
import { heldBack, type Holding } from '@nibrel/core/bench/in-hand';
import type { JobState } from '@nibrel/core/job/state';
import { partName } from '@nibrel/core/planner/words';
import { useState } from 'react';
import { DeviceDrawing } from '../../drawing/device-drawing.tsx';
import { shownOf } from '@nibrel/core/drawn/shown';
import { Button } from '../../ui/button.tsx';
import type { Closing } from '../../ui/form.ts';
import { Panel } from '../../ui/panel.tsx';
import { SelectField } from '../../ui/select-field.tsx';

interface HeldPanelProps extends Closing {
  readonly mechanism: Mechanism;
  readonly state: JobState;
  readonly op: Op | undefined;
  onNotMapped(): void;
}

/** Why will it not come out? What still holds a part, the nearest first, on the device; and what a map may have missed. */
export function HeldPanel({ mechanism, state, op, open, onClose, onNotMapped }: HeldPanelProps) {
  const { map } = mechanism;
  const [chosen, setChosen] = useState('');
  const inHand = op?.part ?? jointById(map, op?.joint)?.holds[0];
  const parts = map.parts.filter((each) => !each.base);
  const id = chosen || inHand || parts[0]!.id;
  const part = partById(map, id)!;
  const held = open ? heldBack(mechanism, state, id) : null;
  const joints = [...(held?.holds ?? []), ...(held?.lightly ?? [])].flatMap(({ joint }) => joint ?? []);
  const shown = { ...shownOf(mechanism, state, undefined), now: new Set([id, ...joints]), marked: new Set(joints) };
  return (
    <Panel
      title="Why will it not come out?"
      said="What still holds it, the nearest first. Nothing is pulled while anything does."
      open={open}
      onClose={onClose}
    >
      <SelectField
        id="held-part"
        label="Part"
        value={id}
        options={parts.map((each) => ({ value: each.id, label: partName(map, each.id) }))}
        onChange={setChosen}
      />
      <div className="mt-4 grid gap-6 md:grid-cols-[1fr_16rem]">
        <div className="flex flex-col gap-4">
          {held && held.holds.length === 0 && (
            <p className="text-lead font-bold">Nothing of the map holds {partName(map, id)} any more.</p>
          )}
          {held && held.holds.length > 0 && <Holds title="Still holding" holds={held.holds} />}
          {held && held.lightly.length > 0 && <Holds title="Sticks a little, that is normal" holds={held.lightly} />}
          {held && held.missed.length > 0 && (
            <section aria-label="It still will not come">
              <h3 className="text-note text-quiet">It still will not come: look for</h3>
              <ul className="text-body">
                {held.missed.map((each) => (
                  <li key={each} className="border-b border-hair py-1">
                    {each}
                  </li>
                ))}
              </ul>
              <Button className="mt-3" onClick={onNotMapped}>
                Not as mapped: it was something else
              </Button>
            </section>
          )}
        </div>
        <div className="h-72">
          <DeviceDrawing
            map={map}
            side={part.face === 'back' ? 'back' : 'front'}
            {...shown}
            near={[id]}
            label={`${partName(map, id)}, with what holds it`}
          />
        </div>
      </div>
    </Panel>
  );
}

function Holds({ title, holds }: { readonly title: string; readonly holds: readonly Holding[] }) {
  return (
    <section aria-label={title}>
      <h3 className="text-note text-quiet">{title}</h3>
      <ol className="text-lead">
        {holds.map(({ text, beneath, away_mm }) => (
          <li key={text} className="border-b border-hair py-1">
            {text}
            <span className="block text-note text-quiet">
              {beneath.length > 0 ? `under ${beneath.join(', ')} · ` : ''}
              {away_mm} mm away
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}
