/** *3 min*, *1 h 05*, *40 s* */
export function minutes(seconds: number): string {
  if (seconds < 90) return `${Math.round(seconds)} s`;
  const whole = Math.round(seconds / 60);
  return whole < 60 ? `${whole} min` : `${Math.floor(whole / 60)} h ${String(whole % 60).padStart(2, '0')}`;
}
