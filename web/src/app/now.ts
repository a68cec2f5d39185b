import { useEffect, useState } from 'react';

/** The time now in milliseconds, again every so often. @param every milliseconds, as such or by what time it is */
export function useNow(every: number | ((now: number) => number)): number {
  const [now, setNow] = useState(() => Date.now());
  const every_ms = typeof every === 'number' ? every : every(now);
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), every_ms);
    return () => clearInterval(timer);
  }, [every_ms]);
  return now;
}
