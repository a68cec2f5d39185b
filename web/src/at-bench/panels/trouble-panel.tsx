import Joi from 'joi';
import { TROUBLES } from '@nibrel/core/asking/at-bench';
import { type EventData, TROUBLE_KINDS, type TroubleKind } from '@nibrel/core/job/events';
import { type DeviceMap, fastenerAt, type ScrewJoint } from '@nibrel/core/model/device-map';
import type { Op } from '@nibrel/core/planner/drafts';
import { edgeName, partName, placeWords, thingName } from '@nibrel/core/planner/words';
import { keyOf, type Ledger } from '@nibrel/core/screws/screws';
import { useState } from 'react';
import { temperature } from '../../app/units.ts';
import { Button } from '../../ui/button.tsx';
import { Choice } from '../../ui/choice.tsx';
import { Field } from '../../ui/field.tsx';
import { Panel } from '../../ui/panel.tsx';
import { SelectField } from '../../ui/select-field.tsx';
import type { Closing } from '../../ui/form.ts';
import { figure, note } from '../../ui/typed.ts';
import { useFields } from '../../ui/use-fields.ts';

const FOLLOWS: Readonly<Partial<Record<TroubleKind, string>>> = {
  'grabbed-again': 'Another round of heat is put before the cut. Leave a pick in as you go on.',
  drags: 'Where is kept, and it is warmed before you go on: more heat, not more force. At the cut, D does the same.',
  'cup-slips': 'Clear tape over the whole face is put before the cut: it gives the cup a surface.',
  'cut-too-deep':
    'Stop there. What lies behind that edge is looked at before anything goes on; where it is a cell, the lead decides.',
  'clip-broken': 'A look is put before it is pressed home again: flush all round, or the part is renewed.',
  'tab-snapped':
    'A soak is put before it. First fetch the tab with blunt tweezers; never lever under the middle of a cell.',
  'part-cracked': 'Tape holds the splinters, and the part is planned to be replaced as well. Eyes covered.',
  'connector-damaged': 'The part is planned to be replaced as well.',
  'screw-lost': 'No battery and no lid goes on over it before it is found or a decision is recorded.',
  'screw-never-there': 'The counts are corrected, and a correction of the map is proposed.',
  'one-screw-more': 'It is counted on the mat, and a correction of the map is proposed.',
  'another-length': 'A correction of the map is proposed.',
  'no-place': 'It is kept as left over, its hole is not waited for, and a correction of the map is proposed.',
};

const ABOUT_BOND: readonly TroubleKind[] = ['will-not-lift', 'grabbed-again', 'drags', 'cup-slips', 'cut-too-deep'];
const AT_AN_EDGE: readonly TroubleKind[] = ['drags', 'cut-too-deep'];
const ABOUT_SCREW: readonly TroubleKind[] = [
  'screw-stripped',
  'screw-lost',
  'screw-never-there',
  'another-length',
  'no-place',
];
const FROM_THE_MAT: readonly TroubleKind[] = ['screw-lost', 'no-place'];

interface Told {
  readonly text: string;
  readonly length: string | number;
}

const schema = Joi.object<Told>({ text: note(), length: note() });
const lengthSchema = Joi.object<Told>({ text: note(), length: figure('A length in millimetres, as 3.4', { over: 0 }) });

interface TroublePanelProps extends Closing {
  readonly map: DeviceMap;
  readonly ledger: Ledger;
  readonly op: Op | undefined;
  /** what went wrong, where that was said already */
  readonly first?: TroubleKind | undefined;
  /** the bond's temperature as it is foreseen now */
  readonly bond_C?: number | undefined;
  readonly solventBelow_C: number;
  /** @returns was it taken? What was written stays until it is. */
  onTrouble(trouble: EventData['trouble']): Promise<boolean>;
  onStop(): void;
}

export function TroublePanel({
  map,
  ledger,
  op,
  first = 'will-not-lift',
  bond_C,
  solventBelow_C,
  open,
  onClose,
  onTrouble,
  onStop,
}: TroublePanelProps) {
  const [kind, setKind] = useState<TroubleKind>(first);
  const { field, sent, setValue } = useFields(kind === 'another-length' ? lengthSchema : schema, {
    text: '',
    length: '',
  });
  // what can be lost is what is out
  const out = new Set(ledger.onMat.map(keyOf));
  const isOffered = (joint: string, point: string) => !FROM_THE_MAT.includes(kind) || out.has(keyOf({ joint, point }));
  const screwJoints = map.joints.filter(
    (each) => each.type === 'screw' && each.points.some(({ id }) => isOffered(each.id, id)),
  ) as ScrewJoint[];
  const [jointId, setJoint] = useState('');
  const [point, setPoint] = useState('');
  const [part, setPart] = useState('');
  const [heldId, setHeld] = useState('');
  const [segment, setSegment] = useState('');
  const [next, setNext] = useState<'heat' | 'solvent'>('heat');
  const joint = map.joints.find((each) => each.id === (jointId || op?.joint));
  const screw = screwJoints.find((each) => each.id === joint?.id) ?? screwJoints[0];
  const points = screw?.points.filter(({ id }) => isOffered(screw.id, id)) ?? [];
  const needsScrew = ABOUT_SCREW.includes(kind);
  const needsPart = kind === 'part-cracked' || kind === 'connector-damaged';
  const chosenPart = part || op?.part || joint?.holds[0] || map.parts[0]!.id;
  const chosenPoint = points.find((each) => each.id === point) ?? points[0];

  const wanted = kind === 'clip-broken' ? 'clip' : ABOUT_BOND.includes(kind) ? 'bond' : null;
  const heldJoints = map.joints.filter((each) => each.type === wanted);
  const held = heldJoints.find((each) => each.id === (heldId || op?.joint)) ?? heldJoints[0];
  const cutEdges = held?.type === 'bond' ? (held.segments ?? []).filter((each) => each.depth !== undefined) : [];
  const chosenEdge = cutEdges.find((each) => each.id === segment) ?? cutEdges[0];

  const hadWarmth = kind === 'will-not-lift' || kind === 'drags';
  const nothingOut = FROM_THE_MAT.includes(kind) && !screw;
  const report = sent(async ({ text, length }) => {
    if (nothingOut) return;
    const taken = await onTrouble({
      kind,
      text,
      ...(needsScrew && screw && chosenPoint ? { joint: screw.id, point: chosenPoint.id } : {}),
      ...(kind === 'one-screw-more' && screw ? { joint: screw.id, fastener: screw.fastener } : {}),
      ...(kind === 'tab-snapped' && op?.joint ? { joint: op.joint } : {}),
      ...(wanted && held ? { joint: held.id } : {}),
      ...(AT_AN_EDGE.includes(kind) && chosenEdge ? { segment: chosenEdge.id } : {}),
      ...(hadWarmth && bond_C !== undefined && held?.id === op?.joint ? { bond_C: Math.round(bond_C * 10) / 10 } : {}),
      ...(kind === 'will-not-lift' ? { next } : {}),
      ...(needsPart ? { part: chosenPart } : {}),
      ...(kind === 'another-length' ? { length_mm: Number(length) } : {}),
    });
    if (taken) setValue('text', '');
    onClose();
  });
  return (
    <Panel
      title="Trouble"
      said="It is recorded, and where it changes what must be done the plan follows."
      open={open}
      onClose={onClose}
    >
      <form onSubmit={report} className="flex flex-col gap-4">
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
                options={points.map((each, at) => ({
                  value: each.id,
                  label: `${at + 1}, ${placeWords(map, each, screw.face)}, ${map.fasteners.find(({ id }) => id === fastenerAt(screw, each))?.length} mm`,
                }))}
                onChange={setPoint}
              />
            )}
          </div>
        )}
        {nothingOut && (
          <p className="text-body text-now">
            No screw is out of the device{kind === 'screw-lost' ? ', so none is lost' : ''}.
          </p>
        )}
        {wanted && held && (
          <div className="grid grid-cols-2 gap-4">
            <SelectField
              id="trouble-held"
              label={wanted === 'clip' ? 'Clips of' : 'Bond of'}
              value={held.id}
              options={heldJoints.map(({ id }) => ({ value: id, label: thingName(map, id) }))}
              onChange={setHeld}
            />
            {AT_AN_EDGE.includes(kind) && chosenEdge && (
              <SelectField
                id="trouble-edge"
                label="At which edge"
                value={chosenEdge.id}
                options={cutEdges.map(({ id, depth }) => ({
                  value: id,
                  label: `${held?.type === 'bond' ? edgeName(held, id) : id}, ${depth} mm`,
                }))}
                onChange={setSegment}
              />
            )}
          </div>
        )}
        {kind === 'will-not-lift' && (
          <WhatNext next={next} bond_C={bond_C} solventBelow_C={solventBelow_C} onNext={setNext} />
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
        {kind === 'another-length' && <Field label="Length in mm" inputMode="decimal" {...field('length')} />}
        <Field label="Note" {...field('text')} maxLength={2000} />
        <Button weight="loud" type="submit" keyName="Enter" disabled={nothingOut}>
          Record it
        </Button>
        <Button className="font-bold text-now" onClick={onStop}>
          Smell, smoke or warmth: stop now
        </Button>
      </form>
    </Panel>
  );
}

interface WhatNextProps {
  readonly next: 'heat' | 'solvent';
  readonly bond_C: number | undefined;
  readonly solventBelow_C: number;
  onNext(next: 'heat' | 'solvent'): void;
}

/** More heat, or a few drops once it is cool enough for them: never more force. */
function WhatNext({ next, bond_C, solventBelow_C, onNext }: WhatNextProps) {
  const tooWarm = bond_C !== undefined && bond_C > solventBelow_C;
  return (
    <div className="flex flex-col gap-2">
      <Choice
        label="What is tried next"
        value={next}
        options={[
          { value: 'heat', label: 'more heat' },
          { value: 'solvent', label: 'a few drops, and their soak' },
        ]}
        onChange={onNext}
      />
      <p className="text-body text-quiet">
        {next === 'heat'
          ? 'More heat, not more force. From now on this bond is taken to soften hotter than it was.'
          : tooWarm
            ? `At ${temperature(bond_C)} it is too warm for solvent: the drops wait until it is below ${temperature(solventBelow_C)}, the source off and away.`
            : 'The source off and away, a few drops along the edge, and time to creep in.'}
      </p>
    </div>
  );
}
