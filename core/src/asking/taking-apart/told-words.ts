import { plural } from '../../planner/words/index.ts';
import { heldBy, type Step, type ToldSoFar, USUAL } from '../../teardown/record/index.ts';

export function partLabel({ parts }: ToldSoFar, id: string): string {
  const part = parts.get(id);
  return part?.name ?? USUAL[part?.kind ?? 'other'].name;
}

/** *4 screws A*, *Battery plug*, *Clips of Back cover* */
export function jointLabel(so: ToldSoFar, id: string): string {
  const { type, style, count = 1, screw, points } = so.joints.get(id) ?? {};
  const held = heldBy(so, id);
  const names = held ? held.map((each) => partLabel(so, each)).join(' and ') : '';
  const of = names === '' ? '' : ` of ${names}`;
  switch (type) {
    case 'screw':
      return `${plural(points?.length ?? count, 'screw')}${screw === undefined ? '' : ` ${screw}`}${of}`;
    case 'connector':
      return `${style === 'coax' ? 'Coax' : style === 'zif-flip' ? 'Latch' : 'Plug'}${of}`;
    case 'bond':
      return `${GLUES[style ?? 'perimeter'] ?? 'Glue'}${of}`;
    case 'solder':
      return `Solder${of}`;
    case 'hinge':
      return `Hinge${of}`;
    default:
      return `Clips${of}`;
  }
}

const GLUES: Readonly<Record<string, string>> = {
  perimeter: 'Seal',
  pad: 'Glue pad',
  tabs: 'Pull tabs',
  strap: 'Strap',
  tape: 'Tape',
  thermal: 'Thermal paste',
  gasket: 'Gasket',
};

/** *Lid off*, *Display open*, *Battery plug out*, *Board would not move* */
export function stepLabel(so: ToldSoFar, step: Step): string {
  switch (step.kind) {
    case 'release':
      return `${jointLabel(so, step.joint)} ${UNDONE[so.joints.get(step.joint)?.type ?? 'clip'] ?? 'undone'}`;
    case 'open':
      return `${partLabel(so, step.part)} open`;
    case 'lift':
      return `${partLabel(so, step.part)} off`;
    case 'refused': {
      const name = step.joint === undefined ? partLabel(so, step.part) : jointLabel(so, step.joint);
      return `${name} would not move`;
    }
  }
}

const UNDONE: Readonly<Record<string, string>> = {
  screw: 'out',
  connector: 'unplugged',
  bond: 'open',
  clip: 'undone',
  solder: 'off',
};
