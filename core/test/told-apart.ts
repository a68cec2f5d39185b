import type { BondJoint, ConnectorJoint, DeviceMap, Joint } from '../src/model/device-map/index.ts';
import {
  BARE_BASE,
  BARE_CELL,
  bareMap,
  type TeardownEventData,
  type ToldJoint,
  type ToldPart,
} from '../src/teardown/record/index.ts';
import { TestBench } from './bench.ts';
import { tornDown } from './torn-down.ts';

type Told = readonly ['came-off' | 'described', TeardownEventData['came-off'] | TeardownEventData['described']];

/** A known device taken apart as somebody tells it who has no map: batches of screws without a place, plugs and parts by name. */
export function toldApart(map: DeviceMap, seed: number): readonly Told[] {
  const torn = tornDown(map, seed, { photographed: false });
  const idOf = (id: string) =>
    map.parts.find((part) => part.id === id)?.base ? BARE_BASE : id === map.battery?.part ? BARE_CELL : id;
  const told = new Set<string>([BARE_BASE]);
  const firstTime = (ids: readonly string[]): { parts?: readonly ToldPart[] } => {
    const parts = ids
      .filter((id) => !told.has(idOf(id)))
      .map((id) => {
        const { kind, name, face } = map.parts.find((part) => part.id === id)!;
        told.add(idOf(id));
        return { id: idOf(id), kind, name, face };
      });
    return parts.length > 0 ? { parts } : {};
  };
  const joints = new Map(map.joints.map((joint) => [joint.id, joint]));
  const hinges = torn.hinges.map(
    ({ id, holds, to, face, edge }) =>
      ({ id, type: 'hinge', holds: holds.map(idOf), to: idOf(to), face, edge }) as const,
  );
  const before: Told[] =
    hinges.length > 0
      ? [['described', { joints: hinges, ...firstTime(torn.hinges.flatMap(({ holds, to }) => [...holds, to])) }]]
      : [];
  return [
    ...before,
    ...torn.record.flatMap((line): Told[] => {
      const on = line.on === undefined ? {} : { on: idOf(line.on) };
      if (line.kind === 'refused') return [];
      if (line.kind !== 'release') {
        const to = line.kind === 'open' ? 'open' : 'off';
        return [['came-off', { part: idOf(line.part), to, ...firstTime([line.part]), ...on }]];
      }
      const joint = joints.get(line.joint)!;
      const screws = joint.type === 'screw' ? { screws: [{ id: joint.fastener, drive: 'PH000' }] } : {};
      return [
        [
          'came-off',
          {
            joint: joint.id,
            joints: [toldJoint(joint, joint.holds.map(idOf))],
            ...firstTime(joint.holds),
            ...screws,
            ...on,
          },
        ],
      ];
    }),
  ];
}

function toldJoint(joint: Joint, holds: readonly string[]): ToldJoint {
  const { id, type, face } = joint;
  if (type === 'screw') return { id, type, face, holds, count: joint.points.length, screw: joint.fastener };
  const { style } = joint as { readonly style?: ConnectorJoint['style'] | BondJoint['style'] };
  return { id, type: type as NonNullable<ToldJoint['type']>, face, holds, ...(style ? { style } : {}) };
}

/** A bench at which a device without a map is taken in and prepared. */
export function unmapped(kind: DeviceMap['kind'], outline?: DeviceMap['outline']): TestBench {
  const base = bareMap({ id: 'kittiwake-lite', name: 'Kittiwake Lite', kind, ...(outline ? { outline } : {}) });
  return new TestBench(base, [{ full: true }])
    .send('take-apart', {})
    .send('charge', { charge: 0.2, source: 'typed' })
    .prepare();
}
