import { type EventData, TROUBLE_KINDS, type TroubleKind } from '@nibrel/core/bench';
import { type DeviceMap, fastenerAt } from '@nibrel/core/device-map';
import { type Op, partName, type Target } from '@nibrel/core/plan';
import { useState, type SyntheticEvent } from 'react';
import { plural } from '../app/format.ts';
import { useSettings } from '../app/settings.ts';
import { Button, Key } from '../ui/button.tsx';
import { Caution } from '../ui/caution.tsx';
import { Field } from '../ui/field.tsx';
import { Panel } from '../ui/panel.tsx';
import { opLine } from './op-words.ts';

interface Closing {
  readonly open: boolean;
  onClose(): void;
}

function submitted(act: () => void) {
  return (event: SyntheticEvent) => {
    event.preventDefault();
    act();
  };
}

const select = 'mt-0.5 min-h-12 w-full border-b-2 border-ink bg-sheet px-1 text-body';

/** Who is at the bench: picked once, goes into every event. */
export function PersonPanel({ open, onClose }: Closing) {
  const { person, people, setPerson } = useSettings();
  const [name, setName] = useState(person);
  const pick = (picked: string) => {
    if (!picked.trim()) return;
    setPerson(picked.trim());
    onClose();
  };
  return (
    <Panel
      title="Who is at the bench"
      said="Asked once. The name goes into everything that is recorded here."
      open={open}
      onClose={onClose}
    >
      <form onSubmit={submitted(() => pick(name))} className="flex flex-col gap-4">
        <Field label="Name" value={name} onChange={(event) => setName(event.target.value)} autoFocus maxLength={60} />
        {people.length > 0 && (
          <div className="flex flex-wrap gap-2">
            {people.map((each) => (
              <Button key={each} onClick={() => pick(each)}>
                {each}
              </Button>
            ))}
          </div>
        )}
        <Button weight="loud" type="submit" keyName="Enter">
          That is me
        </Button>
      </form>
    </Panel>
  );
}

export function NotePanel({ open, onClose, onNote }: Closing & { onNote(text: string): void }) {
  const [text, setText] = useState('');
  const save = () => {
    if (text.trim()) onNote(text.trim());
    setText('');
    onClose();
  };
  return (
    <Panel title="Note" open={open} onClose={onClose}>
      <form onSubmit={submitted(save)} className="flex flex-col gap-4">
        <Field
          label="What is worth knowing later"
          value={text}
          onChange={(event) => setText(event.target.value)}
          autoFocus
          maxLength={2000}
        />
        <Button weight="loud" type="submit" keyName="Enter">
          Take the note
        </Button>
      </form>
    </Panel>
  );
}

const TROUBLES: Readonly<Record<TroubleKind, string>> = {
  'screw-stripped': 'A screw is stripped',
  'will-not-lift': 'It will not lift',
  'tab-snapped': 'A pull tab snapped',
  'part-cracked': 'A part cracked',
  'connector-damaged': 'A connector is damaged',
  'screw-lost': 'A screw is lost',
  'screw-never-there': 'A screw was never there',
  'one-screw-more': 'There is one screw more',
  'another-length': 'A screw has another length',
  other: 'Something else',
};

const FOLLOWS: Readonly<Partial<Record<TroubleKind, string>>> = {
  'will-not-lift': 'Another round of heat is put before the cut: more heat, not more force.',
  'tab-snapped':
    'A soak is put before it. First fetch the tab with blunt tweezers; never lever under the middle of a cell.',
  'part-cracked': 'The part is planned to be replaced as well.',
  'connector-damaged': 'The part is planned to be replaced as well.',
  'screw-lost': 'No battery and no lid goes on over it before it is found or a decision is recorded.',
  'screw-never-there': 'The counts are corrected, and a correction of the map is proposed.',
  'one-screw-more': 'It is counted on the mat, and a correction of the map is proposed.',
  'another-length': 'A correction of the map is proposed.',
};

const ABOUT_SCREW: readonly TroubleKind[] = ['screw-stripped', 'screw-lost', 'screw-never-there', 'another-length'];

interface TroublePanelProps extends Closing {
  readonly map: DeviceMap;
  readonly op: Op | undefined;
  onTrouble(trouble: EventData['trouble']): void;
}

export function TroublePanel({ map, op, open, onClose, onTrouble }: TroublePanelProps) {
  const [kind, setKind] = useState<TroubleKind>('will-not-lift');
  const [text, setText] = useState('');
  const screwJoints = map.joints.filter((each) => each.type === 'screw');
  const [jointId, setJoint] = useState('');
  const [point, setPoint] = useState('');
  const [part, setPart] = useState('');
  const [length, setLength] = useState('');
  const joint = map.joints.find((each) => each.id === (jointId || op?.joint));
  const screw = joint?.type === 'screw' ? joint : screwJoints[0];
  const needsScrew = ABOUT_SCREW.includes(kind);
  const needsPart = kind === 'part-cracked' || kind === 'connector-damaged';
  const chosenPart = part || op?.part || joint?.holds[0] || map.parts[0]!.id;
  const chosenPoint = screw?.points.find((each) => each.id === point) ?? screw?.points[0];

  const report = () => {
    onTrouble({
      kind,
      text: text.trim(),
      ...(needsScrew && screw && chosenPoint ? { joint: screw.id, point: chosenPoint.id } : {}),
      ...(kind === 'one-screw-more' && screw ? { joint: screw.id, fastener: screw.fastener } : {}),
      ...((kind === 'will-not-lift' || kind === 'tab-snapped') && op?.joint ? { joint: op.joint } : {}),
      ...(needsPart ? { part: chosenPart } : {}),
      ...(kind === 'another-length' ? { length_mm: Number(length.replace(',', '.')) } : {}),
    });
    setText('');
    onClose();
  };
  return (
    <Panel
      title="Trouble"
      said="It is recorded, and where it changes what must be done the plan follows."
      open={open}
      onClose={onClose}
    >
      <form onSubmit={submitted(report)} className="flex flex-col gap-4">
        <div>
          <label htmlFor="trouble-kind" className="block text-note text-quiet">
            What happened
          </label>
          <select
            id="trouble-kind"
            className={select}
            value={kind}
            onChange={(event) => setKind(event.target.value as TroubleKind)}
          >
            {TROUBLE_KINDS.map((each) => (
              <option key={each} value={each}>
                {TROUBLES[each]}
              </option>
            ))}
          </select>
          {FOLLOWS[kind] && <p className="mt-1 text-note text-quiet">{FOLLOWS[kind]}</p>}
        </div>
        {(needsScrew || kind === 'one-screw-more') && screw && (
          <div className="grid grid-cols-2 gap-4">
            <div>
              <label htmlFor="trouble-joint" className="block text-note text-quiet">
                Screws of
              </label>
              <select
                id="trouble-joint"
                className={select}
                value={screw.id}
                onChange={(event) => setJoint(event.target.value)}
              >
                {screwJoints.map((each) => (
                  <option key={each.id} value={each.id}>
                    {each.holds.map((id) => partName(map, id)).join(' and ')}
                  </option>
                ))}
              </select>
            </div>
            {needsScrew && (
              <div>
                <label htmlFor="trouble-point" className="block text-note text-quiet">
                  Which
                </label>
                <select
                  id="trouble-point"
                  className={select}
                  value={chosenPoint?.id ?? ''}
                  onChange={(event) => setPoint(event.target.value)}
                >
                  {screw.points.map((each) => (
                    <option key={each.id} value={each.id}>
                      {each.id}, {map.fasteners.find((one) => one.id === fastenerAt(screw, each))?.length} mm
                    </option>
                  ))}
                </select>
              </div>
            )}
          </div>
        )}
        {needsPart && (
          <div>
            <label htmlFor="trouble-part" className="block text-note text-quiet">
              Part
            </label>
            <select
              id="trouble-part"
              className={select}
              value={chosenPart}
              onChange={(event) => setPart(event.target.value)}
            >
              {map.parts.map((each) => (
                <option key={each.id} value={each.id}>
                  {each.name}
                </option>
              ))}
            </select>
          </div>
        )}
        {kind === 'another-length' && (
          <Field
            label="Length in mm"
            inputMode="decimal"
            value={length}
            onChange={(event) => setLength(event.target.value)}
            required
            pattern="[0-9]+([.,][0-9]+)?"
          />
        )}
        <Field label="Note" value={text} onChange={(event) => setText(event.target.value)} maxLength={2000} />
        <Button weight="loud" type="submit" keyName="Enter">
          Record it
        </Button>
      </form>
    </Panel>
  );
}

interface StopPanelProps extends Closing {
  onStop(stop: EventData['stop']): void;
}

const STOPS: Readonly<Record<EventData['stop']['reason'], string>> = {
  smoke: 'Smoke',
  swelling: 'The cell swells',
  smell: 'Sweet or burnt smell',
  leak: 'Something leaks',
  heat: 'It gets hot by itself',
  other: 'Something else',
};

/** From any moment: what is safe first, then it is isolated and handed to the lead. */
export function StopPanel({ open, onClose, onStop }: StopPanelProps) {
  const [reason, setReason] = useState<EventData['stop']['reason']>('smoke');
  const [text, setText] = useState('');
  return (
    <Panel title="Stop now" open={open} onClose={onClose}>
      <form
        onSubmit={submitted(() => {
          onStop({ reason, text: text.trim() });
          onClose();
        })}
        className="flex flex-col gap-4"
      >
        <Caution>
          Hands off the cell. Heat and charger off. If it can be moved safely, into the sand, outdoors, away from what
          burns; if it smokes, leave it and leave the room. Fire service and local rules come before this screen.
        </Caution>
        <div>
          <label htmlFor="stop-reason" className="block text-note text-quiet">
            What is it
          </label>
          <select
            id="stop-reason"
            className={select}
            autoFocus
            value={reason}
            onChange={(event) => setReason(event.target.value as typeof reason)}
          >
            {Object.entries(STOPS).map(([value, label]) => (
              <option key={value} value={value}>
                {label}
              </option>
            ))}
          </select>
        </div>
        <Field label="Note" value={text} onChange={(event) => setText(event.target.value)} maxLength={2000} />
        <Button weight="loud" type="submit" keyName="Enter">
          Stop this repair
        </Button>
      </form>
    </Panel>
  );
}

export function ClearPanel({ open, onClose, onClear }: Closing & { onClear(text: string): void }) {
  const [name, setName] = useState('');
  const [text, setText] = useState('');
  return (
    <Panel
      title="The lead clears it"
      said="Say who decided, and why it is safe to go on."
      open={open}
      onClose={onClose}
    >
      <form
        onSubmit={submitted(() => {
          if (!name.trim() || !text.trim()) return;
          onClear(`${name.trim()}: ${text.trim()}`);
          onClose();
        })}
        className="flex flex-col gap-4"
      >
        <Field
          label="Lead"
          value={name}
          onChange={(event) => setName(event.target.value)}
          required
          autoFocus
          maxLength={60}
        />
        <Field
          label="Reason"
          value={text}
          onChange={(event) => setText(event.target.value)}
          required
          maxLength={1000}
        />
        <Button weight="loud" type="submit" keyName="Enter">
          Clear it
        </Button>
      </form>
    </Panel>
  );
}

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
          <div>
            <label htmlFor="target-kind" className="block text-note text-quiet">
              What
            </label>
            <select
              id="target-kind"
              className={select}
              value={kind}
              onChange={(event) => setKind(event.target.value as typeof kind)}
            >
              <option value="replace">replace</option>
              <option value="remove">take out</option>
            </select>
          </div>
          <div>
            <label htmlFor="target-part" className="block text-note text-quiet">
              Part
            </label>
            <select
              id="target-part"
              className={select}
              value={chosen}
              onChange={(event) => setPart(event.target.value)}
            >
              {parts.map((each) => (
                <option key={each.id} value={each.id}>
                  {each.name}
                </option>
              ))}
            </select>
          </div>
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

interface UntilPanelProps {
  readonly map: DeviceMap;
  readonly ops: readonly Op[] | null;
  onClose(): void;
  onTake(ops: readonly Op[]): void;
}

/** Hands were busy: all that must have been done until then, taken in one press and timed as a group. */
export function UntilPanel({ map, ops, onClose, onTake }: UntilPanelProps) {
  const screws = (ops ?? []).reduce(
    (sum, op) =>
      sum +
      (op.kind === 'release' && map.joints.find((each) => each.id === op.joint)?.type === 'screw'
        ? (op.count ?? 0)
        : 0),
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

const BENCH_KEYS = [
  ['Space', 'do the step; at a test: it works'],
  ['PageDown', 'do the step (pedal)'],
  ['PageUp', 'look back (pedal)'],
  ['← →', 'look back, look ahead'],
  ['Home', 'back to the step in hand'],
  ['Enter', 'when looking ahead: all done until here'],
  ['U', 'undo the last thing done'],
  ['L', 'lay one screw'],
  ['W', 'end the wait now'],
  ['2, 3', 'at a test: fails, not tried'],
  ['F', 'flip the drawing'],
  ['M', 'missing screws: found, left out, new'],
  ['T', 'trouble'],
  ['E', 'something else was done'],
  ['N', 'note'],
  ['G', 'change the target'],
  ['C', 'close up without replacing'],
  ['P', 'pause, go on'],
  ['X', 'stop now'],
  ['I', 'who is at the bench'],
  ['R', 'record'],
  ['?', 'these keys'],
] as const;

export function KeysPanel({ open, onClose }: Closing) {
  return (
    <Panel title="Keys" open={open} onClose={onClose}>
      <dl className="grid gap-x-8 sm:grid-cols-2">
        {BENCH_KEYS.map(([key, what]) => (
          <div key={key} className="flex items-center gap-4 border-b border-hair py-1.5">
            <dt className="w-24">
              <Key name={key} />
            </dt>
            <dd className="text-body">{what}</dd>
          </div>
        ))}
      </dl>
    </Panel>
  );
}
