/** Left open so long after a picture, so that the next is there at once; then the lamp goes out. */
const OPEN_MS = 60_000;
/** A camera that shows nothing for so long is taken for broken. */
const PATIENCE_MS = 8000;

/** The camera of this tablet: opened with the first picture, closed when nobody takes any. */
export class Camera {
  #stream: MediaStream | null = null;
  #video: HTMLVideoElement | null = null;
  /** two presses in a row open it once */
  #opening: Promise<HTMLVideoElement> | null = null;
  #timer: ReturnType<typeof setTimeout> | undefined;

  /** @throws Error in words: refused, missing, or showing nothing, and what to do */
  async take(): Promise<File> {
    clearTimeout(this.#timer);
    try {
      this.#opening ??= this.#open().finally(() => {
        this.#opening = null;
      });
      const video = await this.#opening;
      const canvas = document.createElement('canvas');
      canvas.width = video.videoWidth;
      canvas.height = video.videoHeight;
      canvas.getContext('2d')!.drawImage(video, 0, 0);
      const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/jpeg', 0.92));
      if (!blob) throw new Error('The picture could not be made. Press again.');
      return new File([blob], 'camera.jpg', { type: 'image/jpeg' });
    } finally {
      this.#timer = setTimeout(() => this.close(), OPEN_MS);
    }
  }

  close(): void {
    clearTimeout(this.#timer);
    for (const track of this.#stream?.getTracks() ?? []) track.stop();
    this.#stream = null;
    this.#video = null;
  }

  async #open(): Promise<HTMLVideoElement> {
    const isLive = this.#stream?.getVideoTracks().some(({ readyState }) => readyState === 'live');
    if (this.#video && isLive) return this.#video;
    // a page without HTTPS, on any address but this machine's own, is given no camera at all
    const { mediaDevices } = navigator as { mediaDevices?: MediaDevices };
    if (!mediaDevices) throw new Error('The browser gives this address no camera: open it by HTTPS, or pick a file.');
    try {
      this.#stream = await mediaDevices.getUserMedia({
        video: { facingMode: { ideal: 'environment' }, width: { ideal: 3840 }, height: { ideal: 2160 } },
      });
    } catch (error) {
      throw new Error(whyNot(error as DOMException), { cause: error });
    }
    const video = document.createElement('video');
    video.muted = true;
    video.playsInline = true;
    video.srcObject = this.#stream;
    await withinPatience(
      new Promise<void>((resolve) => {
        video.addEventListener('loadeddata', () => resolve(), { once: true });
        void video.play();
      }),
    );
    this.#video = video;
    return video;
  }
}

function whyNot({ name }: DOMException): string {
  switch (name) {
    case 'NotAllowedError':
    case 'SecurityError':
      return 'The camera was refused. Allow it for this address in the browser and press again, or pick a file.';
    case 'NotFoundError':
    case 'OverconstrainedError':
      return 'There is no camera here. Pick a file, or take it with another device.';
    case 'NotReadableError':
      return 'Another program has the camera. Close it and press again, or pick a file.';
    default:
      return 'The camera does not open. Press again, or pick a file.';
  }
}

async function withinPatience(ready: Promise<void>): Promise<void> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new Error('The camera shows nothing. Press again, or pick a file.')), PATIENCE_MS);
  });
  try {
    await Promise.race([ready, late]);
  } finally {
    clearTimeout(timer);
  }
}
