import { describe, expect, it } from 'vitest';
import { onDevice, pageOf, searchOf } from './instrument-address.ts';

describe('the page on the device under test', () => {
  it('stands whole in its address', () => {
    const at = { x: 1, y: 2 };
    for (const instrument of [
      { kind: 'colour-fields', part: 'd' },
      { kind: 'touch-grid', part: 'd', columns: 8, rows: 16 },
      { kind: 'tone', part: 's', at, hertz: [300, 1200] },
      { kind: 'camera', part: 'c', side: 'front' },
      { kind: 'camera', part: 'c', side: 'back' },
      { kind: 'microphone', part: 'm', at },
      { kind: 'vibration', part: 'v' },
    ] as const) {
      const page = onDevice(instrument)!;
      expect(pageOf(new URLSearchParams(searchOf(page)))).toEqual(page);
    }
    expect(onDevice({ kind: 'buttons', buttons: [] })).toBeNull();
  });

  it('is none, or a small one, for an address that is made up', () => {
    const read = (search: string) => pageOf(new URLSearchParams(search));
    expect(read('show=__proto__')).toBeNull();
    expect(read('')).toBeNull();
    expect(read('show=touch&columns=1e9&rows=-4')).toEqual({ show: 'touch', columns: 60, rows: 2 });
    expect(read('show=tones&hertz=NaN,5,440,1e99')).toEqual({ show: 'tones', hertz: [440] });
  });
});
