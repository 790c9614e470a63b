import { createGlobalState, useLocalStorage } from '@vueuse/core';
import { computed, ref, shallowRef, type ComputedRef, type Ref, type ShallowRef } from 'vue';
import type { Microphone, SoundEdit } from '#contract/sound';
import type { KeptSound } from '../feedback/changes.ts';
import { useSchool } from '../session/school.ts';
import { useSession } from '../session/session.ts';
import { ChunkKeeper } from './chunk-keeper.ts';
import { renderedTake, takeOfBlob, type RenderedTake } from './kept-sound.ts';
import { isMissing, microphoneSentence, openMicrophone, openPicture, pictureSentence } from './microphone.ts';
import { PracticeMicrophone } from './practice-microphone.ts';
import { LEAD_SECONDS, SoundPath, type Recording } from './sound-path.ts';
import { canRender, warmUp, type Heard } from './sound-work.ts';
import type { Tapped } from './tap.ts';
import { beginTake, forgetTake, letGoOfTake, type TakePurpose, type UnfinishedTake } from './takes.ts';

/** Nobody can say anything in less; it was a slip of the finger. */
const SHORTEST_HOLD_SECONDS = 0.25;

const NOTHING_RECORDED = 'Nothing was recorded. Hold the key while you speak, and let go when you have finished.';

/** `lost`: the microphone went away in the middle. `leave`: the person left the page; the take is offered at the next visit. */
type Ending = 'keep' | 'discard' | 'lost' | 'leave';

export type RecorderStatus = 'off' | 'opening' | 'ready' | 'starting' | 'recording' | 'paused' | 'finishing';

export interface Take {
  id: string;
  purpose: TakePurpose;
  sound: KeptSound;
  /** What of the original is heard; null where the sound is the original. */
  edit: SoundEdit | null;
  /** The recording as it was spoken, where the sound is a rendition of it. */
  original: Promise<Blob> | undefined;
  /** It was thrown away, and may be brought back. */
  thrown: boolean;
}

/** A take between its last word and its file. */
export interface Preview extends Pick<Heard, 'wav' | 'duration' | 'peaks'> {
  id: string;
  purpose: TakePurpose;
}

export interface Recorder {
  status: Ref<RecorderStatus>;
  /** What is wrong, as a sentence; null where nothing is. */
  problem: Ref<string | null>;
  practising: Ref<boolean>;
  speaking: ComputedRef<boolean>;
  /** What the running take is for. */
  purpose: Ref<TakePurpose | undefined>;
  /** A take that can be heard already, while it is still being encoded. */
  preview: ShallowRef<Preview | undefined>;
  /** The camera or the screen, while it is recorded. */
  picture: ShallowRef<MediaStream | undefined>;
  /** How much of a long take has been levelled and encoded, from 0 to 1. */
  progress: Ref<number>;
  /** The microphone that was chosen, by the browser's identifier; empty where it is the system's choice. */
  device: Ref<string>;
  /** What the microphone gives; undefined where it is off, or the practice microphone. */
  track(): MediaStreamTrack | undefined;
  /** Seconds of the running take, without its pauses. */
  seconds(): number;
  /** Opens the microphone, unless it is open; answers whether it is. */
  warm(): Promise<boolean>;
  /** Gives the microphone back to the system, as soon as no take is running. */
  cool(): void;
  usePractice(practise: boolean): Promise<boolean>;
  useDevice(id: string): Promise<boolean>;
  /** Records until `stop` or `discard`; undefined where nothing was said. Call `kept` when the take is safe elsewhere. */
  record(purpose: TakePurpose): Promise<Take | undefined>;
  pause(): void;
  resume(): void;
  stop(): void;
  discard(): void;
  /** Ends the take without handing it out: it is offered at the next visit. */
  leave(): void;
  kept(take: Pick<Take, 'id'>): Promise<void>;
  /** Measures a take that a page before this one left behind. */
  recover(take: UnfinishedTake): Promise<Take | undefined>;
  read(samples: Float32Array<ArrayBuffer>): void;
  /** What the microphone hears in so many seconds, for a try; kept nowhere. */
  listen(seconds: number): Promise<{ samples: Float32Array<ArrayBuffer>; rate: number } | undefined>;
}

/** The one recorder of the app, with the one microphone. */
export const useRecorder = createGlobalState((): Recorder => {
  const session = useSession();
  const school = useSchool();
  const status = ref<RecorderStatus>('off');
  const problem = ref<string | null>(null);
  const practising = ref(false);
  const purpose = shallowRef<TakePurpose>();
  const preview = shallowRef<Preview>();
  const picture = shallowRef<MediaStream>();
  const progress = ref(0);
  const device = useLocalStorage('microphone', '');
  const speaking = computed(() => ['starting', 'recording', 'paused', 'finishing'].includes(status.value));

  let path: SoundPath | undefined;
  let practice: PracticeMicrophone | undefined;
  let stream: MediaStream | undefined;
  let opening: Promise<boolean> | undefined;
  let recording: Recording | undefined;
  let busy = false;
  let cooling = false;
  let begunAt = 0;
  let pausedAt: number | undefined;
  let finish: (how: Ending) => void = () => undefined;

  const soundPath = (): SoundPath => (path ??= new SoundPath(new AudioContext({ latencyHint: 'interactive' })));
  const seconds = (): number => ((pausedAt ?? performance.now()) - begunAt) / 1000;

  function warm(): Promise<boolean> {
    cooling = false;
    if (status.value !== 'off') return opening ?? Promise.resolve(true);
    status.value = 'opening';
    opening = open().finally(() => {
      opening = undefined;
      if (cooling && !busy) cool();
    });
    return opening;
  }

  async function open(): Promise<boolean> {
    try {
      const target = soundPath();
      await target.connect(practising.value ? await practiceSource(target) : await deviceSource(target));
      void target.context.resume();
      warmUp();
      problem.value = null;
      status.value = 'ready';
      return true;
    } catch (error) {
      status.value = 'off';
      problem.value = microphoneSentence(error);
      if (!isMissing(error) || practising.value || !(await school.isSample())) return false;
      practising.value = true;
      status.value = 'opening';
      const practises = await open();
      problem.value = 'No microphone was found, so the practice microphone speaks a sample sentence for you.';
      return practises;
    }
  }

  async function practiceSource({ context }: SoundPath): Promise<AudioNode> {
    practice ??= await PracticeMicrophone.open(context);
    return practice.output;
  }

  async function deviceSource({ context }: SoundPath): Promise<AudioNode> {
    stream = await openMicrophone(device.value || undefined);
    for (const track of stream.getAudioTracks()) track.addEventListener('ended', unplugged, { once: true });
    return new MediaStreamAudioSourceNode(context, { mediaStream: stream });
  }

  function unplugged(): void {
    if (speaking.value) finish('lost');
    else status.value = 'off';
    problem.value = 'The microphone was unplugged. What you had said is kept. Plug it in again to go on.';
  }

  function cool(): void {
    cooling = busy || opening !== undefined;
    if (cooling) return;
    for (const track of stream?.getTracks() ?? []) track.stop();
    stream = undefined;
    status.value = 'off';
  }

  async function reopen(choose: () => void): Promise<boolean> {
    if (busy) return false;
    cool();
    choose();
    return warm();
  }

  async function record(what: TakePurpose): Promise<Take | undefined> {
    if (busy) return undefined;
    busy = true;
    const pressedAt = performance.now();
    let released = false;
    const ended = new Promise<Ending>((resolve) => (finish = resolve)).finally(() => (released = true));
    try {
      const wasWarm = status.value === 'ready';
      if (!(await warm())) return undefined;
      if (released && !wasWarm) problem.value = 'The microphone is ready now. Hold the key and speak.';
      if (released) return undefined;
      if (what.type === 'remark' && what.picture && !(await openPictureFor(what.picture))) return undefined;
      return await runTake(what, ended, picture.value ? performance.now() : pressedAt);
    } catch {
      problem.value = 'The recording could not be made. Reload the page and try again; what was said before is kept.';
      return undefined;
    } finally {
      busy = false;
      recording = undefined;
      pausedAt = undefined;
      purpose.value = undefined;
      closePicture();
      if (speaking.value) status.value = stream?.active || practising.value ? 'ready' : 'off';
      if (cooling) cool();
    }
  }

  async function openPictureFor(what: 'camera' | 'screen'): Promise<boolean> {
    try {
      picture.value = await openPicture(what);
      // The browser has a button of its own to end the sharing of a screen.
      for (const track of picture.value.getVideoTracks()) track.addEventListener('ended', () => finish('keep'));
      return true;
    } catch (error) {
      problem.value = pictureSentence(error, what);
      return false;
    }
  }

  function closePicture(): void {
    for (const track of picture.value?.getTracks() ?? []) track.stop();
    picture.value = undefined;
  }

  async function runTake(what: TakePurpose, ended: Promise<Ending>, pressedAt: number): Promise<Take | undefined> {
    const { context, tap } = soundPath();
    status.value = 'starting';
    problem.value = null;
    progress.value = 0;
    purpose.value = what;
    preview.value = undefined;
    begunAt = pressedAt;
    if (context.state !== 'running') await context.resume();

    const id = crypto.randomUUID();
    const chunks = new ChunkKeeper();
    const running = await soundPath().record((chunk) => chunks.keep(chunk), picture.value);
    recording = running;
    tap?.begin();
    const microphone = microphoneNow(picture.value ? 0 : LEAD_SECONDS);
    status.value = 'recording';
    performance.measure('record-key-to-recording', { start: pressedAt });
    const { mediaType } = running;
    const startedAt = new Date().toISOString();
    const record = { id, person: session.person!.id, purpose: what, mediaType, microphone, startedAt };
    void beginTake(record).then(
      (save) => chunks.keepIn(save),
      () => undefined,
    );

    const how = await ended;
    performance.mark('let-go');
    const length = seconds();
    const wanted = length >= SHORTEST_HOLD_SECONDS;
    status.value = 'finishing';
    const tapped = await tap?.end();
    practice?.hush();
    if (!wanted || how === 'leave') {
      await running.end();
      if (wanted) letGoOfTake(id);
      else await forgetTake(id).catch(() => undefined);
      if (how === 'keep') problem.value = NOTHING_RECORDED;
      return undefined;
    }
    const original = how === 'lost' ? running.end() : running.stop();
    const onHeard = (heard: Heard): void => {
      if (how !== 'discard') preview.value = { ...heard, id, purpose: what };
    };
    const take = await finished({ tapped, microphone, original, length, onHeard });
    if (take) return { id, purpose: what, ...take, thrown: how === 'discard' };
    await forgetTake(id).catch(() => undefined);
    if (how === 'keep') problem.value = NOTHING_RECORDED;
    return undefined;
  }

  interface Spoken {
    tapped: Tapped | undefined;
    microphone: Microphone;
    original: Promise<Blob>;
    /** Seconds by the clock. */
    length: number;
    onHeard: (heard: Heard) => void;
  }

  /** The samples are there at once; the encoder's file comes when the delay line has run empty. */
  async function finished({
    tapped,
    microphone,
    original,
    length,
    onHeard,
  }: Spoken): Promise<Pick<Take, 'sound' | 'edit' | 'original'> | undefined> {
    const shown = picture.value && purpose.value?.type === 'remark' ? (purpose.value.picture ?? null) : null;
    const rendered: RenderedTake | undefined =
      tapped?.samples && !shown && canRender()
        ? await renderedTake(tapped.samples, soundPath().context.sampleRate, microphone, {
            onHeard,
            onProgress: (share) => (progress.value = share),
          }).catch(() => undefined)
        : undefined;
    // What is too long to be worked on here is kept as the encoder made it.
    const long = tapped && !tapped.samples ? tapped.tops : undefined;
    const take = rendered ?? (await takeOfBlob(await original, microphone, length, { picture: shown, tops: long }));
    return take && { ...take, original: take.edit ? original : undefined };
  }

  function microphoneNow(from: number): Microphone {
    if (!practising.value || !practice) return { type: 'device' };
    return { type: 'practice', sentence: practice.speak(), from };
  }

  function pause(): void {
    if (status.value !== 'recording') return;
    pausedAt = performance.now();
    path?.tap?.pause();
    recording?.pause();
    status.value = 'paused';
  }

  function resume(): void {
    if (status.value !== 'paused' || pausedAt === undefined) return;
    begunAt += performance.now() - pausedAt;
    pausedAt = undefined;
    path?.tap?.resume();
    recording?.resume();
    status.value = 'recording';
  }

  async function recover(unfinished: UnfinishedTake): Promise<Take | undefined> {
    const { id, purpose, blob, microphone } = unfinished;
    const shown = purpose.type === 'remark' ? (purpose.picture ?? null) : null;
    const take = await takeOfBlob(blob, microphone, unfinished.seconds, { picture: shown });
    return take && { id, purpose, ...take, original: take.edit ? Promise.resolve(blob) : undefined, thrown: false };
  }

  async function listen(seconds: number): ReturnType<Recorder['listen']> {
    if (busy || !(await warm()) || !path?.tap) return undefined;
    busy = true;
    try {
      const { tap, context } = path;
      if (context.state !== 'running') await context.resume();
      tap.begin();
      if (practising.value) practice?.speak();
      await new Promise((resolve) => setTimeout(resolve, seconds * 1000));
      practice?.hush();
      const { samples } = await tap.end();
      return samples && { samples, rate: context.sampleRate };
    } finally {
      busy = false;
    }
  }

  return {
    status,
    problem,
    practising,
    speaking,
    purpose,
    preview,
    picture,
    progress,
    device,
    track: () => (practising.value ? undefined : stream?.getAudioTracks()[0]),
    seconds,
    warm,
    cool,
    usePractice: (practise) => reopen(() => (practising.value = practise)),
    useDevice: (id) =>
      reopen(() => {
        practising.value = false;
        device.value = id;
      }),
    record,
    pause,
    resume,
    stop: () => finish('keep'),
    discard: () => finish('discard'),
    leave: () => finish('leave'),
    kept: ({ id }) => forgetTake(id).catch(() => undefined),
    recover,
    read: (samples) => path?.read(samples),
    listen,
  };
});
