import Joi from 'joi';
import { REGISTRY_ANSWERS, type RegistryAnswer } from '../model/identity/index.ts';
import { type BenchEvent } from '../job/events/index.ts';
import type { Problem } from '../model/refusal/index.ts';
import { type Role, ROLES, type ShopEvent } from '../workshop/shop/index.ts';
import { count, listOf, moment, named, oneOf, shape, text, yes } from './shape.ts';

const id = text.min(1);

export interface MapLine {
  readonly id: string;
  readonly name: string;
  readonly kind: string;
  readonly revision: number;
  /** who made this revision; null where nobody was asked */
  readonly by: string | null;
  /** ISO 8601 */
  readonly at: string;
}

const mapLine = shape<MapLine>({ id, name: text, kind: text, revision: count, by: text.allow(null), at: moment });
export const mapList = shape<{ readonly maps: readonly MapLine[] }>({ maps: listOf(mapLine) });

const problem = shape<Problem>({ path: text, message: text, cure: text });

/** A map that was taken, with what is doubtful about it. */
export interface StoredMapLine {
  readonly id: string;
  readonly revision: number;
  readonly warnings: readonly Problem[];
}

export const storedMap = shape<StoredMapLine>({ id, revision: count, warnings: listOf(problem) });

export interface MapFindings {
  readonly errors: readonly Problem[];
  readonly warnings: readonly Problem[];
}

export const mapFindings = shape<MapFindings>({ errors: listOf(problem), warnings: listOf(problem) });

export interface EventList<Event> {
  readonly events: readonly Event[];
  readonly revision: number;
}

export const jobEvents = shape<EventList<BenchEvent>>({ events: listOf(named('StoredEvent')), revision: count });
export const shopEvents = shape<EventList<ShopEvent>>({ events: listOf(named('StoredEvent')), revision: count });

/** An event as it is kept; those of an older version may say what none would be taken for today. */
export const storedEvent = Joi.object({
  id: id.required(),
  type: text.required(),
  at: text.required(),
  by: text.required(),
  data: Joi.object().unknown(true).required(),
  receivedAt: text,
  unreadable: yes,
});

/** An event that was not taken; `problem` is all of it as one text: *joint: There is no …* */
export interface RejectedEvent extends Problem {
  readonly id: string;
  readonly problem: string;
  /** a lead may say it, by the lead's own name; `secret`: and has to show the lead's own secret first */
  readonly needs?: 'lead' | 'secret';
}

/** What became of the events of a call. */
export interface Appended {
  readonly accepted: readonly string[];
  readonly duplicate: readonly string[];
  readonly rejected: readonly RejectedEvent[];
  readonly revision: number;
  /** by the server's clock, ISO 8601 */
  readonly receivedAt: string;
}

export const appended = shape<Appended>({
  accepted: listOf(text),
  duplicate: listOf(text),
  rejected: listOf(
    shape<RejectedEvent>(
      { id: text, problem: text, path: text, message: text, cure: text },
      { needs: oneOf('lead', 'secret') },
    ),
  ),
  revision: count,
  receivedAt: moment,
});

export interface StoredPhoto {
  readonly hash: string;
  readonly type: string;
  readonly width: number;
  readonly height: number;
  readonly bytes: number;
}

export const storedPhoto = shape<StoredPhoto>({ hash: text, type: text, width: count, height: count, bytes: count });

/** Who is signed in, where the server is reached over a network; `needed` is false where it is not. */
export interface SignedIn {
  readonly needed: boolean;
  readonly person: string | null;
  readonly role: Role | null;
}

export const signedIn = shape<SignedIn>({ needed: yes, person: text.allow(null), role: oneOf(...ROLES, null) });

/** Which leads have a secret of their own, and which of them has shown it here. */
export interface LeadsNow {
  /** who has confirmed here, and until when: ISO 8601 */
  readonly confirmed: { readonly person: string; readonly until: string } | null;
  readonly leads: readonly {
    readonly person: string;
    readonly hasSecret: boolean;
    /** in the demonstration, where everybody is everybody */
    readonly shown?: string;
  }[];
}

export const leadsNow = shape<LeadsNow>({
  confirmed: shape<NonNullable<LeadsNow['confirmed']>>({ person: text, until: moment }).allow(null),
  leads: listOf(shape<LeadsNow['leads'][number]>({ person: text, hasSecret: yes }, { shown: text })),
});

/** What a register said, marked where it only stands in for one. */
export interface RegistrySaid {
  readonly answer: RegistryAnswer;
  /** all that it may say */
  readonly answers: readonly RegistryAnswer[];
  readonly number: string;
  readonly at: string;
  readonly where: string;
  readonly simulated: boolean;
}

export const registrySaid = shape<RegistrySaid>({
  answer: oneOf(...REGISTRY_ANSWERS),
  answers: listOf(oneOf(...REGISTRY_ANSWERS)),
  number: text,
  at: moment,
  where: text,
  simulated: yes,
});

export const standInList = shape<{ readonly standIns: readonly string[] }>({ standIns: listOf(text) });
export const health = shape<{ readonly status: 'ok' }>({ status: oneOf('ok') });

/** What went wrong (RFC 9457), with the fields at fault. */
export interface ProblemAnswer {
  readonly type: string;
  readonly title: string;
  readonly status: number;
  readonly detail: string;
  readonly errors?: readonly Problem[];
}

export const problemAnswer = shape<ProblemAnswer>(
  { type: text, title: text, status: count, detail: text },
  { errors: listOf(problem) },
);
