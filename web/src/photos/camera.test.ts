import { afterEach, describe, expect, it, vi } from 'vitest';
import { Camera } from './camera.ts';

const withDevices = (mediaDevices: object | undefined) => vi.stubGlobal('navigator', { mediaDevices });
const refusing = (name: string) => ({ getUserMedia: () => Promise.reject(new DOMException('no', name)) });
const problem = () =>
  new Camera().take().then(
    () => 'taken',
    (error: Error) => error.message,
  );

describe('a camera that gives no picture', () => {
  afterEach(() => {
    vi.unstubAllGlobals();
    vi.useRealTimers();
  });

  it.each([
    ['NotAllowedError', 'refused'],
    ['NotFoundError', 'no camera here'],
    ['NotReadableError', 'Another program'],
    ['AbortError', 'does not open'],
  ])('says of %s what to do', async (name, said) => {
    withDevices(refusing(name));
    const text = await problem();
    expect(text).toContain(said);
    expect(text).toMatch(/pick a file|Pick a file/);
  });

  it('is told apart from an address that is given none', async () => {
    withDevices(undefined);
    expect(await problem()).toContain('open it by HTTPS');
  });

  it('is opened once by two presses in a row', async () => {
    const getUserMedia = vi.fn(() => Promise.reject(new DOMException('no', 'NotFoundError')));
    withDevices({ getUserMedia });
    const camera = new Camera();
    await Promise.allSettled([camera.take(), camera.take()]);
    expect(getUserMedia).toHaveBeenCalledTimes(1);
    camera.close();
  });

  it('that shows nothing is waited for no longer than a few seconds', async () => {
    vi.useFakeTimers();
    const stop = vi.fn();
    withDevices({ getUserMedia: () => Promise.resolve({ getTracks: () => [{ stop }], getVideoTracks: () => [] }) });
    vi.stubGlobal('document', { createElement: () => ({ addEventListener: () => {}, play: () => Promise.resolve() }) });
    const said = problem();
    await vi.advanceTimersByTimeAsync(8100);
    expect(await said).toContain('shows nothing');
    // and its lamp goes out when nobody takes another
    await vi.advanceTimersByTimeAsync(60_100);
    expect(stop).toHaveBeenCalled();
  });
});
