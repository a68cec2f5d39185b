import { plural } from '../../planner/words/index.ts';
import { heldBy, type Step, type ToldSoFar, USUAL } from '../../teardown/record/index.ts';

export function partLabel({ parts }: ToldSoFar, id: string): string {
  const part = parts.get(id);
  return part?.name ?? USUAL[part?.kind ?? 'other'].name;
}

function heldNames(so: ToldSoFar, joint: string): string {
  return (heldBy(so, joint) ?? []).map((each) => partLabel(so, each)).join(' and ');
}

/** *4 screws A of Lid*, *Plug of Battery*, *Clips of Back cover* */
export function jointLabel(so: ToldSoFar, id: string): string {
  const names = heldNames(so, id);
  return names === '' ? jointKind(so, id) : `${jointKind(so, id)} of ${names}`;
}

/** *4 screws A*, *Plug*, *Clips* */
function jointKind(so: ToldSoFar, id: string): string {
  const { type, style, count = 1, screw, points } = so.joints.get(id) ?? {};
  switch (type) {
    case 'screw':
      return `${plural(points?.length ?? count, 'screw')}${screw === undefined ? '' : ` ${screw}`}`;
    case 'connector':
      return style === 'coax' ? 'Coax' : style === 'zif-flip' ? 'Latch' : 'Plug';
    case 'bond':
      return GLUES[style ?? 'perimeter'] ?? 'Glue';
    case 'solder':
      return 'Solder';
    case 'hinge':
      return 'Hinge';
    default:
      return 'Clips';
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

/** *4 screws A out* and *Lid*, *Battery unplugged*, *Display open*, *Board would not move* */
export function stepWords(so: ToldSoFar, step: Step): { readonly text: string; readonly more: string } {
  switch (step.kind) {
    case 'release': {
      const { type = 'clip' } = so.joints.get(step.joint) ?? {};
      const names = heldNames(so, step.joint);
      if (type === 'connector') return { text: `${names || 'Plug'} unplugged`, more: '' };
      return { text: `${jointKind(so, step.joint)} ${UNDONE[type] ?? 'undone'}`, more: names };
    }
    case 'open':
      return { text: `${partLabel(so, step.part)} open`, more: '' };
    case 'lift':
      return { text: `${partLabel(so, step.part)} off`, more: '' };
    case 'refused': {
      const name = step.joint === undefined ? partLabel(so, step.part) : jointLabel(so, step.joint);
      return { text: `${name} would not move`, more: '' };
    }
  }
}

/** The same in one: *4 screws A out, Lid* */
export function stepLabel(so: ToldSoFar, step: Step): string {
  const { text, more } = stepWords(so, step);
  return more === '' ? text : `${text}, ${more}`;
}

const UNDONE: Readonly<Record<string, string>> = {
  screw: 'out',
  connector: 'unplugged',
  bond: 'open',
  clip: 'undone',
  solder: 'off',
};
