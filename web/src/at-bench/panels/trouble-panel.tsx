import { type EventData, TROUBLE_KINDS, type TroubleKind } from '@nibrel/core/bench';
import { type DeviceMap, fastenerAt } from '@nibrel/core/device-map';
import { type Op, partName } from '@nibrel/core/plan';
import { useState } from 'react';
import { Button } from '../../ui/button.tsx';
import { Field } from '../../ui/field.tsx';
import { Panel } from '../../ui/panel.tsx';
import { SelectField } from '../../ui/select-field.tsx';
import { type Closing, submitted } from './form.ts';

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
        <SelectField
          id="trouble-kind"
          label="What happened"
          value={kind}
          options={TROUBLE_KINDS.map((each) => ({ value: each, label: TROUBLES[each] }))}
          hint={FOLLOWS[kind]}
          onChange={setKind}
        />
        {(needsScrew || kind === 'one-screw-more') && screw && (
          <div className="grid grid-cols-2 gap-4">
            <SelectField
              id="trouble-joint"
              label="Screws of"
              value={screw.id}
              options={screwJoints.map(({ id, holds }) => ({
                value: id,
                label: holds.map((part) => partName(map, part)).join(' and '),
              }))}
              onChange={setJoint}
            />
            {needsScrew && (
              <SelectField
                id="trouble-point"
                label="Which"
                value={chosenPoint?.id ?? ''}
                options={screw.points.map((each) => ({
                  value: each.id,
                  label: `${each.id}, ${map.fasteners.find(({ id }) => id === fastenerAt(screw, each))?.length} mm`,
                }))}
                onChange={setPoint}
              />
            )}
          </div>
        )}
        {needsPart && (
          <SelectField
            id="trouble-part"
            label="Part"
            value={chosenPart}
            options={map.parts.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={setPart}
          />
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
