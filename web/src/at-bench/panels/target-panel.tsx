import Joi from 'joi';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { Target } from '@nibrel/core/planner/search';
import { partName } from '@nibrel/core/planner/words';
import { fullBut, thingsFor } from '@nibrel/core/asking/taking-in';
import { Button } from '../../ui/button.tsx';
import { Panel } from '../../ui/panel.tsx';
import { SelectField } from '../../ui/select-field.tsx';
import type { Closing } from '../../ui/form.ts';
import { picked } from '../../ui/typed.ts';
import { useFields } from '../../ui/use-fields.ts';

type Kind = 'replace' | 'remove' | 'reach';

interface Chosen {
  readonly kind: Kind;
  readonly part: string;
  /** what stays together where all else comes apart; empty: nothing */
  readonly keep: string;
}

const schema = Joi.object<Chosen>({ kind: picked(), part: picked(), keep: Joi.string().allow('') });

interface TargetPanelProps extends Closing {
  readonly map: DeviceMap;
  readonly targets: readonly Target[];
  onTargets(targets: readonly Target[]): void;
}

/** A second fault was found, or the repair ends here: the rest is planned anew from where it stands. */
export function TargetPanel({ map, targets, open, onClose, onTargets }: TargetPanelProps) {
  const parts = map.parts;
  const first = parts.find((each) => !each.base) ?? parts[0]!;
  const { pick, sent, setValue, typed } = useFields(schema, { kind: 'replace' as Kind, part: first.id, keep: '' });
  const ask = ({ replace: 'part', remove: 'out', reach: 'reach' } as const)[typed('kind') as Kind] ?? 'part';
  const change = (next: readonly Target[]) => {
    onTargets(next);
    onClose();
  };
  const added = ({ kind, part }: Chosen): Target =>
    kind === 'replace' ? { replace: part } : kind === 'remove' ? { remove: part } : { reach: part };
  return (
    <Panel
      title="Change the job"
      said="The rest is planned anew from where the device is now."
      open={open}
      onClose={onClose}
    >
      <form onSubmit={sent((chosen) => change([...targets, added(chosen)]))} className="flex flex-col gap-4">
        <div className="grid grid-cols-[10rem_1fr] gap-4">
          <SelectField
            id="target-kind"
            label="What"
            value={typed('kind') as Kind}
            onChange={(kind) => {
              setValue('kind', kind);
              // a plug is reached, and nothing else
              if (kind !== 'reach' && !parts.some(({ id }) => id === typed('part'))) setValue('part', first.id);
            }}
            options={[
              { value: 'replace', label: 'replace' },
              { value: 'remove', label: 'take out, put back' },
              { value: 'reach', label: 'reach' },
            ]}
          />
          <SelectField
            id="target-part"
            label="Part"
            {...pick('part')}
            options={thingsFor(map, ask).map(({ id, label }) => ({ value: id, label }))}
          />
        </div>
        <Button weight="loud" type="submit" keyName="Enter">
          Add it to this repair
        </Button>
        <Button onClick={() => void sent((chosen) => change([added(chosen)]))()}>Do this instead</Button>
        <div className="grid grid-cols-[1fr_14rem] items-end gap-4">
          <Button onClick={() => void sent(({ keep }) => change([fullBut(keep ? [keep] : [])]))()}>
            Take it all apart
          </Button>
          <SelectField
            id="target-keep"
            label="but keep"
            {...pick('keep')}
            options={[
              { value: '', label: 'nothing' },
              ...parts.filter(({ base }) => !base).map(({ id }) => ({ value: id, label: partName(map, id) })),
            ]}
          />
        </div>
        <Button onClick={() => change([])}>Close it up without replacing anything</Button>
      </form>
    </Panel>
  );
}
