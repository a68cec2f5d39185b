import { isPrepared } from '../../job/rules/index.ts';
import { bitMark, partName } from '../../planner/words/index.ts';
import { chosenPart, isAccepted } from '../../workshop/parts/index.ts';
import { type Keyless, NOTHING_ASKED, type Turns, withKeys } from '../question/index.ts';
import { closeWithout } from './parts-asked.ts';
import type { Preparing } from './preparing.ts';

/** Something that the plan needs and that is not here. */
export interface Gap {
  /** as it is recorded, where it is gone on without */
  readonly item: string;
  readonly title: string;
  readonly detail: string;
  /** a tool that can be said to be here */
  readonly tool: string | null;
  /** the part of the map whose new one is not here */
  readonly part: string | null;
}

/** Tools and supplies that are missing, and new parts that are not here yet. */
export function gapsOf({ mechanism, state, kit, draft }: Preparing): readonly Gap[] {
  const { map } = mechanism;
  const tools = (kit?.tools ?? []).filter(({ owned }) => !owned);
  // what nobody ever counted may be there
  const spent = (kit?.supplies ?? []).filter((each) => !each.advised && !each.enough && each.left !== null);
  const parts = state.targets.flatMap((each) => {
    if (!('replace' in each) || !draft.passed.has(each.replace)) return [];
    const part = chosenPart(state.parts, each.replace);
    return part && isAccepted(part) ? [] : [each.replace];
  });
  return [
    ...tools.map(({ tool, substitutes }) => ({
      item: tool,
      title: `${bitMark(tool)} is not here`,
      detail:
        substitutes
          .slice(0, 2)
          .map((each) => `${bitMark(each.tool)} could stand in${each.owned ? '' : ', not here either'}: ${each.risk}.`)
          .join(' ') || 'Nothing can stand in for it.',
      tool,
      part: null,
    })),
    ...spent.map(({ name, left }) => ({
      item: `${name}, ${left! > 0 ? 'too little' : 'none'} left`,
      title: `Not enough: ${name}`,
      detail: left! <= 0 ? 'None left on the shelf.' : 'Too little left on the shelf.',
      tool: null,
      part: null,
    })),
    ...parts.map((id) => ({
      item: `an accepted new ${partName(map, id)}`,
      title: `The new ${partName(map, id)} is not here yet`,
      detail: 'It is opened without it, and lies open until it comes.',
      tool: null,
      part: id,
    })),
  ];
}

/** What is missing, one after the other: it is here, or it is gone on without, with the reason. */
export function gapsAsked(preparing: Preparing): Turns {
  if (isPrepared(preparing.mechanism, preparing.state)) return [];
  return gapsOf(preparing).map(({ item, title, detail, tool, part }) => {
    const reason = preparing.draft.without.get(item);
    const here: readonly Keyless[] =
      tool === null
        ? []
        : [
            {
              id: 'here',
              label: 'It is here',
              weight: 'main',
              gives: { kind: 'shop', type: 'tool', data: { name: tool, owned: true } },
            },
          ];
    return {
      name: title,
      said: reason === undefined ? 'missing' : `without: ${reason}`,
      isDone: reason !== undefined,
      question: {
        ...NOTHING_ASKED,
        id: `gap:${item}`,
        title,
        detail,
        field: {
          label: 'Start without it, because',
          kind: 'text',
          ...(reason === undefined ? {} : { start: reason }),
          cure: 'Say why it is started without it: it is recorded.',
        },
        answers: withKeys([
          ...here,
          {
            id: 'without',
            label: 'Start without it',
            weight: tool === null ? 'main' : 'plain',
            gives: { kind: 'mark', mark: 'without', items: [item] },
            takes: { name: 'reason' },
          },
          ...(part === null
            ? []
            : [
                {
                  id: 'here',
                  label: 'It has come',
                  weight: 'plain',
                  gives: { kind: 'mark', mark: 'here', items: [part] },
                } as const,
                closeWithout(preparing.state, part),
              ]),
        ]),
      },
    };
  });
}
