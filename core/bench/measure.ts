/** Milliseconds of each run, after two that warm up. */
export function timed(runs: number, work: () => unknown): number[] {
  work();
  work();
  return Array.from({ length: runs }, () => {
    const start = performance.now();
    work();
    return performance.now() - start;
  });
}

export function median(values: readonly number[]): number {
  return percentile(values, 0.5);
}

export function percentile(values: readonly number[], share: number): number {
  const sorted = values.toSorted((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]!;
}

/** How much one and the same work varies on this machine now: the widest of 30 runs over their median. */
export function noise(): number {
  const work = () => {
    let sum = 0;
    for (let n = 0; n < 3e6; n++) sum += Math.sqrt(n);
    return sum;
  };
  const runs = timed(30, work);
  return Math.max(...runs) / median(runs);
}
