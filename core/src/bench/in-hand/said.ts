import type { EventData, EventType } from '../../job/events/index.ts';

/** What is said to the job, before it has an id, a moment and a name. */
export type Said = {
  readonly [Type in EventType]: { readonly type: Type; readonly data: EventData[Type] };
}[EventType];
