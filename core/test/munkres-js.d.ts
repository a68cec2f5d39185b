/** The reference for assignments (docs/check-values.md); it brings no types. */
declare module 'munkres-js' {
  export default function munkres(cost: readonly (readonly number[])[]): [row: number, column: number][];
}
