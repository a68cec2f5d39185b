import type { DeviceMap } from '@nibrel/core/device-map';
import type { Target } from '@nibrel/core/search';
import { useState } from 'react';
import { Button } from '../../ui/button.tsx';
import { Panel } from '../../ui/panel.tsx';
import { SelectField } from '../../ui/select-field.tsx';
import { type Closing, submitted } from '../../ui/form.ts';

interface TargetPanelProps extends Closing {
  readonly map: DeviceMap;
  readonly targets: readonly Target[];
  onTargets(targets: readonly Target[]): void;
}

/** A second fault was found, or the repair ends here: the rest is planned anew from where it stands. */
export function TargetPanel({ map, targets, open, onClose, onTargets }: TargetPanelProps) {
  const [kind, setKind] = useState<'replace' | 'remove'>('replace');
  const [part, setPart] = useState('');
  const parts = map.parts.filter((each) => !each.base);
  const chosen = part || parts[0]!.id;
  const change = (next: readonly Target[]) => {
    onTargets(next);
    onClose();
  };
  const added: Target = kind === 'replace' ? { replace: chosen } : { remove: chosen };
  return (
    <Panel
      title="Change the target"
      said="The rest is planned anew from where the device is now."
      open={open}
      onClose={onClose}
    >
      <form onSubmit={submitted(() => change([...targets, added]))} className="flex flex-col gap-4">
        <div className="grid grid-cols-[10rem_1fr] gap-4">
          <SelectField
            id="target-kind"
            label="What"
            value={kind}
            options={[
              { value: 'replace', label: 'replace' },
              { value: 'remove', label: 'take out' },
            ]}
            onChange={setKind}
          />
          <SelectField
            id="target-part"
            label="Part"
            value={chosen}
            options={parts.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={setPart}
          />
        </div>
        <Button weight="loud" type="submit" keyName="Enter">
          Add it to this repair
        </Button>
        <Button onClick={() => change([added])}>Do this instead</Button>
        <Button onClick={() => change([])}>Close it up without replacing anything</Button>
      </form>
    </Panel>
  );
}
