import { COLOUR_FIELDS } from '@nibrel/core/bench/trying';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { useKeys } from '../app/keys.ts';
import { Button } from '../ui/button.tsx';
import { pageOf } from './instrument-address.ts';
import { TouchGrid } from './touch-grid.tsx';

/** On the device under test itself: one instrument over the whole screen, that asks the server for nothing. */
export function DevicePage() {
  const [search] = useSearchParams();
  const page = pageOf(search);
  switch (page?.show) {
    case 'fields':
      return <Fields />;
    case 'touch':
      return <TouchGrid columns={page.columns} rows={page.rows} />;
    case 'tones':
      return <Tones hertz={page.hertz} />;
    case 'camera':
      return <Camera facing={page.facing} />;
    case 'level':
      return <Level />;
    case 'buzz':
      return <Buzz />;
    default:
      return <Sheet title="Nothing to try at this address">Open it from the test at the bench.</Sheet>;
  }
}

function Sheet({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <main className="flex min-h-dvh flex-col items-start gap-4 p-6">
      <h1 className="text-far font-bold">{title}</h1>
      {children}
    </main>
  );
}

/** One colour after the other; a touch or Space goes on. */
function Fields() {
  const [at, setAt] = useState(0);
  const next = () => setAt((at + 1) % COLOUR_FIELDS.length);
  useKeys({ ' ': next, ArrowRight: next });
  const { name, colour } = COLOUR_FIELDS[at]!;
  return (
    <main className="h-dvh w-full" style={{ background: colour }}>
      <button
        type="button"
        className="size-full cursor-none"
        aria-label={`${name}, ${at + 1} of ${COLOUR_FIELDS.length}: next`}
        onClick={next}
      />
    </main>
  );
}

const TONE_S = 1.2;

function Tones({ hertz }: { readonly hertz: readonly number[] }) {
  const audio = useRef<AudioContext | null>(null);
  useEffect(() => () => void audio.current?.close(), []);
  const play = (tones: readonly number[], pan: number) => {
    audio.current ??= new AudioContext();
    const context = audio.current;
    tones.forEach((tone, index) => {
      const from = context.currentTime + index * TONE_S;
      const oscillator = new OscillatorNode(context, { frequency: tone });
      const gain = new GainNode(context, { gain: 0.4 });
      oscillator.connect(gain).connect(new StereoPannerNode(context, { pan })).connect(context.destination);
      oscillator.start(from);
      oscillator.stop(from + TONE_S * 0.9);
    });
  };
  return (
    <Sheet title="Tones">
      <Button weight="loud" onClick={() => play(hertz, 0)}>
        All of them, one after the other
      </Button>
      <div className="flex flex-wrap gap-2">
        {hertz.map((tone) => (
          <Button key={tone} onClick={() => play([tone], 0)}>
            {tone} Hz
          </Button>
        ))}
      </div>
      <div className="flex gap-2">
        <Button onClick={() => play(hertz, -1)}>Left alone</Button>
        <Button onClick={() => play(hertz, 1)}>Right alone</Button>
      </div>
    </Sheet>
  );
}

/** A stream of the device's own camera or microphone, while the page is open; or why there is none. */
function useMedia(wanted: MediaStreamConstraints) {
  const [stream, setStream] = useState<MediaStream | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const asked = JSON.stringify(wanted);
  useEffect(() => {
    let open: MediaStream | null = null;
    let isGone = false;
    const start = async () => {
      open = await navigator.mediaDevices.getUserMedia(JSON.parse(asked) as MediaStreamConstraints);
      if (isGone) for (const track of open.getTracks()) track.stop();
      else setStream(open);
    };
    start().catch((error: unknown) => {
      if (!isGone) setProblem(error instanceof Error ? error.message : 'It does not answer.');
    });
    return () => {
      isGone = true;
      for (const track of open?.getTracks() ?? []) track.stop();
    };
  }, [asked]);
  return { stream, problem };
}

const NOT_HERE =
  'Try it in the device’s own camera or recorder. A browser gives it over HTTPS only, and only if it is allowed.';

function Camera({ facing }: { readonly facing: 'user' | 'environment' }) {
  const { stream, problem } = useMedia({ video: { facingMode: facing } });
  const video = useRef<HTMLVideoElement>(null);
  useEffect(() => {
    if (video.current) video.current.srcObject = stream;
  }, [stream]);
  if (problem) return <Sheet title="The camera gives no picture">{`${problem} ${NOT_HERE}`}</Sheet>;
  return <video ref={video} autoPlay playsInline muted className="h-dvh w-full bg-black object-contain" />;
}

/** Loud fills it. */
const FULL = 0.25;

function Level() {
  const { stream, problem } = useMedia({ audio: true });
  const [level, setLevel] = useState(0);
  useEffect(() => {
    if (!stream) return;
    const context = new AudioContext();
    const analyser = new AnalyserNode(context, { fftSize: 1024 });
    new MediaStreamAudioSourceNode(context, { mediaStream: stream }).connect(analyser);
    const wave = new Float32Array(analyser.fftSize);
    let frame = 0;
    const read = () => {
      analyser.getFloatTimeDomainData(wave);
      setLevel(Math.sqrt(wave.reduce((sum, each) => sum + each * each, 0) / wave.length));
      frame = requestAnimationFrame(read);
    };
    read();
    return () => {
      cancelAnimationFrame(frame);
      void context.close();
    };
  }, [stream]);
  if (problem) return <Sheet title="The microphone gives no sound">{`${problem} ${NOT_HERE}`}</Sheet>;
  return (
    <Sheet title="Speak">
      <meter min={0} max={FULL} value={Math.min(FULL, level)} aria-label="Level" className="h-16 w-full" />
    </Sheet>
  );
}

const PULSES_MS = [300, 200, 300, 200, 300];

function Buzz() {
  const [isMissing, setMissing] = useState(false);
  const buzz = () => setMissing(!('vibrate' in navigator) || !navigator.vibrate(PULSES_MS));
  return (
    <Sheet title="Three short buzzes">
      <Button weight="loud" onClick={buzz}>
        Buzz
      </Button>
      {isMissing && <p>This browser can’t make it buzz. Set the device to buzz in its own settings.</p>}
    </Sheet>
  );
}
