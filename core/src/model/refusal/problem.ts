/** What is wrong with what was told: at which field, what, and what to do about it. */
export interface Problem {
  /** the way to the field, as in *setting.temp_C* or *parts[3].id*; empty where no one field is at fault */
  readonly path: string;
  readonly message: string;
  /** empty where the message leaves nothing to be done */
  readonly cure: string;
}

export function wrong(path: string, message: string, cure = ''): Problem {
  return { path, message, cure };
}

/** Without what else it is: an error that was thrown crosses threads and the network as data. */
export function asData({ path, message, cure }: Problem): Problem {
  return { path, message, cure };
}

/** A problem as one text: what is wrong, then what to do. */
export function problemText({ message, cure }: Pick<Problem, 'message' | 'cure'>): string {
  return cure === '' ? message : `${message} ${cure}`;
}

/** What was named is in no entry of the device's map. */
export function notInMap(
  path: string,
  kind: 'part' | 'joint' | 'part or joint' | 'bond' | 'plug' | 'function',
  id: string,
): Problem {
  return wrong(path, `There is no ${kind} “${id}” in this map.`, `Name a ${kind} that the map has.`);
}
