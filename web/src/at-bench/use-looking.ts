import type { Gives } from '@nibrel/core/asking/question';
import { mainSide, type Side } from '@nibrel/core/drawn/places';
import { faceOf } from '@nibrel/core/drawn/shown';
import type { JobState } from '@nibrel/core/job/state';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { Op } from '@nibrel/core/planner/drafts';
import { useState } from 'react';
import { stoppedAt } from './spoken.ts';

type Way = Extract<Gives, { kind: 'look' }>['at'];

interface Looking {
  /** how many operations ahead of what is in hand, or, below 0, how many entries back */
  readonly look: number;
  /** what is looked at */
  readonly op: Op | undefined;
  /** the face that is drawn */
  readonly side: Side;
  /** why is said at length */
  readonly isWhyLong: boolean;
  to(way: Way): void;
}

/** What is looked at: what is in hand, what comes, what was done, the other face, why. */
export function useLooking(map: DeviceMap, state: JobState, ops: readonly Op[]): Looking {
  const [look, setLook] = useState(0);
  const [flippedFor, setFlippedFor] = useState<string | null>(null);
  const [whyFor, setWhyFor] = useState<string | null>(null);
  const inHand = ops[0]?.id ?? '';
  const op = look > 0 ? ops[Math.min(look, ops.length - 1)] : ops[0];
  // a flip of the drawing holds for the operation in hand
  const isFlipped = flippedFor === inHand;
  const face = stoppedAt(state) ?? (op && faceOf(map, op));
  const up: Side = face === 'front' || face === 'back' ? face : mainSide(map);
  const isWhyLong = op !== undefined && whyFor === op.id;
  const to = (way: Way) => {
    switch (way) {
      case 'back':
        return setLook(Math.max(look - 1, -state.events.length));
      case 'ahead':
        return setLook(Math.min(look + 1, Math.max(0, ops.length - 1)));
      case 'here':
        return setLook(0);
      case 'other-face':
        return setFlippedFor(isFlipped ? null : inHand);
      case 'why':
        return setWhyFor(isWhyLong ? null : (op?.id ?? null));
    }
  };
  return { look, op, side: isFlipped ? OTHER[up] : up, isWhyLong, to };
}

const OTHER: Readonly<Record<Side, Side>> = { front: 'back', back: 'front' };
