import { holdingNothing, partsOff, type TeardownEventData, USUAL } from '../../teardown/record/index.ts';
import { type Gives, type Keyless, type Line, NOTHING_ASKED, type Question, withKeys } from '../question/index.ts';
import { layersUp, ROOT, type TakingApart, tell, toldParts } from './telling.ts';
import { jointLabel, partLabel, stepLabel } from './told-words.ts';

/** What is told more seldom. */
export function moreAsked(now: TakingApart): Question {
  const { so, before, face } = now;
  const pending = holdingNothing(so);
  const [layer] = layersUp(now);
  const hasSteps = so.steps.some(({ kind }) => kind !== 'refused');
  return {
    ...NOTHING_ASKED,
    id: 'more',
    place: 'More',
    title: 'What else?',
    detail:
      pending.length > 0
        ? `Nothing was said of what these hold: ${pending.map((id) => jointLabel(so, id)).join(', ')}`
        : '',
    answers: withKeys([
      before === null
        ? {
            id: 'earlier',
            key: 'e',
            label: 'Insert earlier',
            weight: 'plain',
            gives: tell({ at: 'earlier' }),
            ...notNow(hasSteps),
          }
        : {
            id: 'not-earlier',
            key: 'e',
            label: 'At the end again',
            weight: 'plain',
            gives: { kind: 'insert', before: null },
          },
      { id: 'look', key: 'l', label: 'Look again', weight: 'plain', gives: tell({ at: 'look' }) },
      ...(layer
        ? [
            {
              id: 'corners',
              key: 'c',
              label: 'Corners of the photograph',
              weight: 'plain',
              gives: tell({ at: 'corners', photo: layer.photo }),
            } as const,
          ]
        : []),
      {
        id: 'turn',
        key: 'f',
        label: `Turn it over: ${face === 'front' ? 'back' : 'front'} up`,
        weight: 'plain',
        gives: { kind: 'look', at: 'other-face' },
      },
      {
        id: 'put-together',
        key: 'p',
        label: 'Nothing more comes off',
        weight: 'plain',
        gives: tell({ at: 'what-held', pressed: [], unknown: [] }),
        ...notNow(hasSteps),
      },
    ]),
  };
}

function notNow(hasSteps: boolean): Pick<Keyless, 'notNow'> | object {
  return hasSteps ? {} : { notNow: 'Nothing came off yet' };
}

/** Where in the record it belongs: directly before the line that is pressed, the newest first. */
export function earlierAsked({ so }: TakingApart): Question {
  return {
    ...NOTHING_ASKED,
    id: 'earlier',
    place: 'Insert earlier',
    title: 'Before which of these?',
    hint: 'What you tell next stands before it. The rest stays as it is.',
    list: so.steps
      .toReversed()
      .map((step) => line(step.event, stepLabel(so, step), { kind: 'insert', before: step.event })),
  };
}

function line(id: string, text: string, gives: Gives, more = ''): Line {
  return { id, text, more, at: null, isDone: false, gives };
}

/** Which part, or which kind of screw, is looked at once more. */
export function lookAsked(now: TakingApart): Question {
  const { so } = now;
  const off = partsOff(so);
  return {
    ...NOTHING_ASKED,
    id: 'look',
    place: 'Look again',
    title: 'At what?',
    list: [
      ...toldParts(now).map(({ id }) =>
        line(id, partLabel(so, id), tell({ at: 'look-at', part: id }), off.has(id) ? 'off' : ''),
      ),
      ...[...so.screws.values()].map(({ id, drive, length }) =>
        line(
          `screw ${id}`,
          `Screw ${id}`,
          tell({ at: 'measure', screw: id }),
          `${drive ?? 'drive not told'}, ${length === undefined ? 'not measured' : `${length} mm`}`,
        ),
      ),
    ],
  };
}

/** What a part is called, which functions it serves, and that it is used once. */
export function lookedAtAsked({ so, mechanism: { map } }: TakingApart, id: string): Question {
  const part = so.parts.get(id);
  const usual = USUAL[part?.kind ?? 'other'].functions;
  const serves = new Set(part?.functions ?? usual.filter((each) => map.functions.some((one) => one.id === each)));
  const described = (data: Partial<NonNullable<TeardownEventData['described']['parts']>[number]>): Gives => ({
    kind: 'say',
    events: [{ type: 'described', data: { parts: [{ id, ...data }] } }],
    next: { at: 'look-at', part: id },
  });
  return {
    ...NOTHING_ASKED,
    id: `look ${id} ${[...serves].join()} ${part?.name} ${part?.mark} ${part?.reuse} ${part?.face}`,
    place: 'Look again',
    title: partLabel(so, id),
    detail: [`on the ${part?.face ?? 'front'}`, part?.mark, part?.reuse === 'single-use' ? 'used once' : '']
      .filter(Boolean)
      .join(' · '),
    hint: 'What does it serve? It is tried for that afterwards.',
    list: map.functions.map((each) => ({
      ...line(
        each.id,
        each.name,
        described({
          functions: serves.has(each.id) ? [...serves].filter((one) => one !== each.id) : [...serves, each.id],
        }),
      ),
      isDone: serves.has(each.id),
    })),
    field: { label: 'Its name, or words on it', kind: 'text', cure: 'Type its name, or the words that stand on it.' },
    answers: withKeys([
      { id: 'done', label: 'That is all', weight: 'main', gives: tell(ROOT) },
      {
        id: 'name',
        label: 'It is called so',
        weight: 'plain',
        gives: described({ name: '' }),
        takes: { name: 'parts.0.name' },
      },
      {
        id: 'mark',
        label: 'This stands on it',
        weight: 'plain',
        gives: described({ mark: '' }),
        takes: { name: 'parts.0.mark' },
      },
      {
        id: 'face',
        label: `It is on the ${part?.face === 'back' ? 'front' : 'back'}`,
        weight: 'plain',
        gives: described({ face: part?.face === 'back' ? 'front' : 'back' }),
      },
      {
        id: 'single-use',
        label: part?.reuse === 'single-use' ? 'It is used again' : 'It is used once',
        weight: 'plain',
        gives: described({ reuse: part?.reuse === 'single-use' ? 'reusable' : 'single-use' }),
      },
    ]),
  };
}

/** How long a kind of screw is: by the caliper, at once or later. */
export function measureAsked({ so }: TakingApart, id: string): Question {
  const screw = so.screws.get(id);
  return {
    ...NOTHING_ASKED,
    id: `measure ${id} ${screw?.length}`,
    place: 'Look again',
    title: `How long is ${id}?`,
    detail: screw?.drive ?? '',
    hint: 'From under its head to its end.',
    field: {
      label: 'Length',
      kind: 'figure',
      unit: 'mm',
      least: 0.1,
      most: 200,
      ...(screw?.length === undefined ? {} : { start: String(screw.length) }),
      cure: 'Give its length in millimetres, 0.1 to 200.',
    },
    answers: withKeys([
      {
        id: 'measured',
        label: 'So long',
        weight: 'main',
        gives: {
          kind: 'say',
          events: [{ type: 'described', data: { screws: [{ id, length: 1 }] } }],
          next: { at: 'look' },
        },
        takes: { name: 'screws.0.length' },
      },
    ]),
  };
}
