import type { BenchEvent } from '../events/index.ts';
import type { JobState, Opening } from '../state/index.ts';

/**
 * A state in which nothing of heat and solvent counts from later than now: what is dated ahead of what the server's clock
 * says when the next event comes in was dated by a clock that was wrong, and would be waited for without end.
 */
export function nothingAhead(state: JobState, { receivedAt }: Pick<BenchEvent, 'receivedAt'>): JobState {
  if (receivedAt === undefined || state.opening.latest_ms <= Date.parse(receivedAt)) return state;
  return { ...state, opening: until(state.opening, receivedAt) };
}

function until({ heating, warmed, solvent, airedAt, ...opening }: Opening, now: string): Opening {
  const now_ms = Date.parse(now);
  const bound = (at: string) => (Date.parse(at) > now_ms ? now : at);
  return {
    ...opening,
    latest_ms: now_ms,
    heating: heating && { ...heating, startedAt: bound(heating.startedAt) },
    warmed: warmed.map((each) => ({ ...each, offAt: bound(each.offAt) })),
    solvent: new Map([...solvent].map(([bench, all]) => [bench, all.map((each) => ({ ...each, at: bound(each.at) }))])),
    airedAt: new Map([...airedAt].map(([bench, at]) => [bench, bound(at)])),
  };
}
