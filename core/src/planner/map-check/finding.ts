/** One message of the check: where in the JSON, as `joints[3].under[0].part`, and what to do about it. */
export interface Finding {
  readonly path: string;
  readonly message: string;
}
