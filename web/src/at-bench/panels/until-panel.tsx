import { type DeviceMap, jointById } from '@nibrel/core/model/device-map';
import type { Op } from '@nibrel/core/planner/drafts';
import { plural, opLine } from '@nibrel/core/planner/words';
import { Button } from '../../ui/button.tsx';
import { Panel } from '../../ui/panel.tsx';
import { submitted } from '../../ui/form.ts';

interface UntilPanelProps {
  readonly map: DeviceMap;
  readonly ops: readonly Op[] | null;
  onClose(): void;
  onTake(ops: readonly Op[]): void;
}

/** Hands were busy: all that must have been done until then, taken in one press and timed as a group. */
export function UntilPanel({ map, ops, onClose, onTake }: UntilPanelProps) {
  const screws = (ops ?? []).reduce(
    (sum, op) => sum + (op.kind === 'release' && jointById(map, op.joint)?.type === 'screw' ? (op.count ?? 0) : 0),
    0,
  );
  return (
    <Panel
      title={ops ? `Done until “${opLine(map, ops.at(-1)!)}”` : ''}
      said={
        ops
          ? `${plural(ops.length, 'operation')}, ${plural(screws, 'screw')} out of the device. Look at the mat before you say yes.`
          : ''
      }
      open={ops !== null}
      onClose={onClose}
    >
      {ops && (
        <form
          onSubmit={submitted(() => {
            onTake(ops);
            onClose();
          })}
        >
          <ol className="max-h-[40dvh] overflow-y-auto border-y border-hair">
            {ops.map((op) => (
              <li key={op.id} className="flex justify-between border-b border-hair py-1 text-body">
                <span>{opLine(map, op)}</span>
              </li>
            ))}
          </ol>
          <Button weight="loud" type="submit" keyName="Enter" className="mt-4 w-full" autoFocus>
            All of this is done
          </Button>
        </form>
      )}
    </Panel>
  );
}
