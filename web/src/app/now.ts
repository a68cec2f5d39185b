import { useEffect, useState } from 'react';

/** The time now in milliseconds, again every `every_ms`. */
export function useNow(every_ms: number): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), every_ms);
    return () => clearInterval(timer);
  }, [every_ms]);
  return now;
}
