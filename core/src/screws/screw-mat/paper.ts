/** Sheets that a mat is printed on, mm (ISO 216, ANSI/ASME Y14.1). */
export const PAPERS = {
  a4: { width: 210, height: 297 },
  letter: { width: 215.9, height: 279.4 },
} as const;

export type Paper = keyof typeof PAPERS;

/** What a printer leaves white, and what stands above and below the mat, mm. */
const EDGE = 10;
const ABOVE = 22;
const BELOW = 30;

export interface Area {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
}

/** Where screws are laid on a sheet, whole millimetres. */
export function areaOf(paper: Paper): Area {
  const { width, height } = PAPERS[paper];
  return {
    x: EDGE,
    y: EDGE + ABOVE,
    w: Math.floor(width - 2 * EDGE),
    h: Math.floor(height - 2 * EDGE - ABOVE - BELOW),
  };
}
