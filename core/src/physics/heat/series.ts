/** On the straight line between two moments. */
export function valueAt(times_s: readonly number[], values: readonly number[], at_s: number): number {
  const index = times_s.findIndex((time) => time >= at_s);
  if (index <= 0) return index < 0 ? values.at(-1)! : values[0]!;
  const share = (at_s - times_s[index - 1]!) / (times_s[index]! - times_s[index - 1]!);
  return values[index - 1]! + share * (values[index]! - values[index - 1]!);
}
