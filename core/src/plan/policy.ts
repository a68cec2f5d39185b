/** Where practitioners disagree, both schools are a setting (work.md). Each has its cost and risk shown on the device. */
export interface Policy {
  readonly display: 'taken-off' | 'on-flexes' | 'auto';
  readonly batteryWhilePrying: 'in' | 'out';
  readonly batteryBefore: 'run-down' | 'charged';
  readonly firstGap: 'one-cup' | 'two-cup' | 'edgeless-blade' | 'thin-film' | 'bench-cutter' | 'by-hand';
  /** null: the source of the map's recipe, else the plate */
  readonly heat: 'plate' | 'pad' | 'air' | 'pack' | 'none' | null;
  readonly screws: 'map-mat' | 'containers-per-stage' | 'containers-apart';
  readonly tools: 'plastic' | 'fine-metal';
  readonly closing: 'precut' | 'tape' | 'liquid' | null;
  readonly tightening: 'torque' | 'snug';
  readonly test: 'before-and-after' | 'after';
}

export const DEFAULT_POLICY: Policy = {
  display: 'auto',
  batteryWhilePrying: 'in',
  batteryBefore: 'run-down',
  firstGap: 'one-cup',
  heat: null,
  screws: 'map-mat',
  tools: 'plastic',
  closing: null,
  tightening: 'torque',
  test: 'before-and-after',
};

/** Every option of every question, for checking what comes in and for drawing the switches. */
export const POLICY_OPTIONS = {
  display: ['auto', 'taken-off', 'on-flexes'],
  batteryWhilePrying: ['in', 'out'],
  batteryBefore: ['run-down', 'charged'],
  firstGap: ['one-cup', 'two-cup', 'edgeless-blade', 'thin-film', 'bench-cutter', 'by-hand'],
  heat: ['plate', 'pad', 'air', 'pack', 'none'],
  screws: ['map-mat', 'containers-per-stage', 'containers-apart'],
  tools: ['plastic', 'fine-metal'],
  closing: ['precut', 'tape', 'liquid'],
  tightening: ['torque', 'snug'],
  test: ['before-and-after', 'after'],
} as const satisfies { [Key in keyof Policy]: readonly NonNullable<Policy[Key]>[] };

/** A policy filled up with the defaults, and the questions of which the answer is not known. */
export function settled(given: Partial<Policy> = {}): { policy: Policy; unknown: string[] } {
  const options: Readonly<Record<string, readonly string[] | undefined>> = POLICY_OPTIONS;
  const entries = Object.entries(given).filter(([, value]) => value !== undefined);
  const isKnown = ([key, value]: [string, unknown]) =>
    Object.hasOwn(options, key) && (value === null || options[key]!.includes(value as string));
  return {
    policy: { ...DEFAULT_POLICY, ...(Object.fromEntries(entries.filter(isKnown)) as Partial<Policy>) },
    unknown: entries.filter((entry) => !isKnown(entry)).map(([key]) => key),
  };
}
