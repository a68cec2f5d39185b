import type { Instrument } from '@nibrel/core/bench/trying';

/** Where the page for a device under test is. */
export const DEVICE_PAGE = '/try';

/** What the page on the device under test shows: all of it stands in its address, so that it asks the server for nothing. */
export type OnDevice =
  | { readonly show: 'fields' }
  | { readonly show: 'touch'; readonly columns: number; readonly rows: number }
  | { readonly show: 'tones'; readonly hertz: readonly number[] }
  | { readonly show: 'camera'; readonly facing: 'user' | 'environment' }
  | { readonly show: 'level' }
  | { readonly show: 'buzz' };

/** What a device shows of itself for an instrument; null where its own keys are pressed. */
export function onDevice(instrument: Instrument): OnDevice | null {
  switch (instrument.kind) {
    case 'colour-fields':
      return { show: 'fields' };
    case 'touch-grid':
      return { show: 'touch', columns: instrument.columns, rows: instrument.rows };
    case 'tone':
      return { show: 'tones', hertz: instrument.hertz };
    case 'camera':
      return { show: 'camera', facing: instrument.side === 'front' ? 'user' : 'environment' };
    case 'microphone':
      return { show: 'level' };
    case 'vibration':
      return { show: 'buzz' };
    case 'buttons':
      return null;
  }
}

/** *?show=touch&columns=8&rows=16* */
export function searchOf(page: OnDevice): string {
  const { show, ...rest } = page;
  const entries = Object.entries(rest).map(([key, value]): [string, string] => [key, String(value)]);
  return new URLSearchParams([['show', show], ...entries]).toString();
}

const MOST_FIELDS = 60;
const HEARD_HZ = { least: 20, most: 20_000 } as const;

/** The same read back; null where it is none. */
export function pageOf(search: URLSearchParams): OnDevice | null {
  const whole = (key: string) => Math.min(MOST_FIELDS, Math.max(2, Math.round(Number(search.get(key))) || 2));
  switch (search.get('show')) {
    case 'fields':
      return { show: 'fields' };
    case 'touch':
      return { show: 'touch', columns: whole('columns'), rows: whole('rows') };
    case 'tones': {
      const hertz = (search.get('hertz') ?? '').split(',').map(Number);
      return { show: 'tones', hertz: hertz.filter((each) => each >= HEARD_HZ.least && each <= HEARD_HZ.most) };
    }
    case 'camera':
      return { show: 'camera', facing: search.get('facing') === 'user' ? 'user' : 'environment' };
    case 'level':
      return { show: 'level' };
    case 'buzz':
      return { show: 'buzz' };
    default:
      return null;
  }
}
