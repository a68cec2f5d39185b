import type { MatQuery } from '@nibrel/core/api';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { Context } from 'hono';
import type { ComputePool } from '../compute/pool.ts';
import { HttpProblem } from '../http/http-problem.ts';
import type { Sheet } from '../print/pdf.ts';
import type { MatOf } from '../print/screw-mat.ts';

interface MatRequest {
  readonly map: DeviceMap;
  readonly of: MatOf;
  readonly query: MatQuery;
  readonly format: 'svg' | 'pdf';
}

/** A mat as it is printed: all sheets as a PDF, or one of them as a drawing. Laid out in a thread. */
export async function screwMatAnswer(
  context: Context,
  press: ComputePool,
  { map, of, query, format }: MatRequest,
): Promise<Response> {
  const paper = query.paper ?? 'a4';
  const sheets = (await press.run({ kind: 'screw-mat', body: { map, paper, of } }, 0)) as readonly Sheet[];
  if (sheets.length === 0) throw new HttpProblem(404, 'No screw of this device comes out: there is no mat to print.');
  if (format === 'pdf') {
    const title = `${of.device}: screw mat`;
    const pdf = (await press.run({ kind: 'pdf', body: { title, sheets } }, 0)) as Uint8Array;
    return context.body(pdf.slice().buffer, 200, { 'content-type': 'application/pdf' });
  }
  const sheet = sheets[(query.sheet ?? 1) - 1];
  if (!sheet) throw new HttpProblem(404, `This mat has ${sheets.length} sheets.`);
  return context.body(sheet.svg, 200, {
    'content-type': 'image/svg+xml',
    'nibrel-sheets': String(sheets.length),
  });
}
