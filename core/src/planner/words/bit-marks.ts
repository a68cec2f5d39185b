/** What is stamped on a bit, by the names that maps give drives; the name itself where nothing else is. For the eye only. */
export function bitMark(drive: string): string {
  const five = /^five-lobe (\d(?:\.\d+)?)$/i.exec(drive);
  if (five) return FIVE_LOBE[five[1]!] ?? drive;
  const three = /^tri-point (\d(?:\.\d+)?)$/i.exec(drive);
  if (three) return TRI_POINT[three[1]!] ?? drive;
  const plus = /^six-lobe-plus (\d+)$/i.exec(drive);
  return plus ? `IP${plus[1]}` : drive;
}

/** Across the points, mm (common practice). */
const FIVE_LOBE: Readonly<Record<string, string>> = { '0.8': 'P2', '1.2': 'P5', '1.5': 'P6' };
const TRI_POINT: Readonly<Record<string, string>> = { '0.6': 'Y000', '0.8': 'Y00', '1.1': 'Y0' };
