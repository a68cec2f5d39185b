type Matrix = readonly [number, number, number, number, number, number];
const times = (a: Matrix, b: Matrix): Matrix => [
  a[0] * b[0] + a[1] * b[2],
  a[0] * b[1] + a[1] * b[3],
  a[2] * b[0] + a[3] * b[2],
  a[2] * b[1] + a[3] * b[3],
  a[4] * b[0] + a[5] * b[2] + b[4],
  a[4] * b[1] + a[5] * b[3] + b[5],
];

/** Straight lines that a PDF page strokes, in points on the paper: its q, Q, cm, m, l and S carried out (ISO 32000-1, 8). */
export function linesOf(pdf: string): number[][] {
  const streams = [...pdf.matchAll(/stream\r?\n([\s\S]*?)endstream/g)].map(([, content]) => content!).join('\n');
  const lines: number[][] = [];
  const saved: Matrix[] = [];
  let matrix: Matrix = [1, 0, 0, 1, 0, 0];
  let numbers: number[] = [];
  let from: number[] = [];
  let path: number[][] = [];
  const placed = (x: number, y: number) => [
    matrix[0] * x + matrix[2] * y + matrix[4],
    matrix[1] * x + matrix[3] * y + matrix[5],
  ];
  for (const token of streams.split(/\s+/)) {
    if (/^-?[\d.]+$/.test(token)) {
      numbers.push(Number(token));
      continue;
    }
    if (token === 'q') saved.push(matrix);
    else if (token === 'Q') matrix = saved.pop() ?? matrix;
    else if (token === 'cm') matrix = times(numbers.slice(-6) as unknown as Matrix, matrix);
    else if (token === 'm') from = placed(numbers.at(-2)!, numbers.at(-1)!);
    else if (token === 'l') path.push([...from, ...placed(numbers.at(-2)!, numbers.at(-1)!)]);
    else if (token === 'S') lines.push(...path);
    if (['S', 'f', 'n', 'B', 'h'].includes(token)) path = token === 'h' ? path : [];
    numbers = [];
  }
  return lines;
}
