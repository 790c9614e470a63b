import { createGlobalState } from '@vueuse/core';
import { computed, ref, shallowRef, type ComputedRef, type Ref, type ShallowRef } from 'vue';
import type { Sound } from '#contract/sound';
import { useSchool } from '../session/school.ts';
import { useSession } from '../session/session.ts';
import { ChunkKeeper } from './chunk-keeper.ts';
import { microphoneDevice } from './device.ts';
import { finishedTake, type FinishedTake } from './finished-take.ts';
import { pictureSource } from './picture-source.ts';
import { LEAD_SECONDS, type Recording } from './sound-path.ts';
import type { Heard } from './sound-work.ts';
import type { TakePurpose } from './take-kind.ts';
import { beginTake, forgetTake, letGoOfTake } from './takes.ts';

/** Nobody can say anything in less; it was a slip of the finger. */
const SHORTEST_HOLD_SECONDS = 0.25;

const NOTHING_RECORDED = 'Nothing was recorded. Hold the key while you speak, and let go when you have finished.';

/** `lost`: the microphone went away in the middle. `leave`: the person left the page; the take is offered at the next visit. */
type Ending = 'keep' | 'discard' | 'lost' | 'leave';

type Phase = 'starting' | 'recording' | 'paused' | 'finishing';
export type RecorderStatus = 'off' | 'opening' | 'ready' | Phase;

export interface Take extends FinishedTake {
  id: string;
  purpose: TakePurpose;
  /** What was done meanwhile, in the order in which it was told. */
  notes: unknown[];
  /** It was thrown away, and may be brought back. */
  thrown: boolean;
}

/** A take between its last word and its file. */
export interface Preview extends Pick<Heard, 'wav' | 'duration' | 'peaks'> {
  id: string;
  purpose: TakePurpose;
}

export interface Recorder {
  status: ComputedRef<RecorderStatus>;
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
  /** The moment of the running take that is heard now, in seconds of its original. */
  moment(): number;
  /** Keeps with the running take what is done meanwhile; it survives what the sound survives. */
  note(what: unknown): void;
  /** Opens the microphone, unless it is open; answers whether it is. */
  warm(): Promise<boolean>;
  /** Gives the microphone back to the system, as soon as no take is running. */
  cool(): void;
  usePractice(practise: boolean): Promise<boolean>;
  useDevice(id: string): Promise<boolean>;
  /** Records until `stop` or `discard`; undefined where nothing was said. Call `kept` when the take is safe elsewhere. */
  record(purpose: TakePurpose, picture?: Sound['picture']): Promise<Take | undefined>;
  pause(): void;
  resume(): void;
  stop(): void;
  discard(): void;
  /** Ends the take without handing it out: it is offered at the next visit. */
  leave(): void;
  kept(take: Pick<Take, 'id'>): Promise<void>;
  read(samples: Float32Array<ArrayBuffer>): void;
  /** What the microphone hears in so many seconds, for a try; kept nowhere. */
  listen(seconds: number): Promise<{ samples: Float32Array<ArrayBuffer>; rate: number } | undefined>;
}

/** The one recorder of the app. */
export const useRecorder = createGlobalState((): Recorder => {
  const session = useSession();
  const school = useSchool();
  const device = microphoneDevice({ mayPractise: () => school.isSample(), onLost: () => finish('lost') });
  const picture = pictureSource(() => finish('keep'));
  const { problem } = device;
  const phase = ref<Phase>();
  const status = computed(() => phase.value ?? device.state.value);
  const speaking = computed(() => phase.value !== undefined);
  const purpose = shallowRef<TakePurpose>();
  const preview = shallowRef<Preview>();
  const progress = ref(0);

  let recording: Recording | undefined;
  let busy = false;
  let begunAt = 0;
  let pausedAt: number | undefined;
  /** The encoder may take longer to begin than the key is held. */
  let letGoAt: number | undefined;
  /** Each beginning, also after a pause, takes in the moment before it. */
  let leads = 0;
  let notes: unknown[] = [];
  let keepNote: ((what: unknown) => void) | undefined;
  let finish: (how: Ending) => void = () => undefined;

  const seconds = (): number => ((pausedAt ?? letGoAt ?? performance.now()) - begunAt) / 1000;

  async function record(what: TakePurpose, shown: Sound['picture'] = null): Promise<Take | undefined> {
    if (busy) return undefined;
    busy = true;
    const pressedAt = performance.now();
    letGoAt = undefined;
    const ended = new Promise<Ending>((resolve) => {
      finish = (how) => {
        letGoAt ??= performance.now();
        resolve(how);
      };
    });
    try {
      const wasWarm = status.value === 'ready';
      if (!(await device.warm())) return undefined;
      if (letGoAt !== undefined && !wasWarm) problem.value = 'The microphone is ready now. Hold the key and speak.';
      if (letGoAt !== undefined) return undefined;
      device.hold();
      const wrong = shown && (await picture.open(shown));
      if (wrong) problem.value = wrong;
      if (wrong) return undefined;
      return await runTake(what, shown, ended, shown ? performance.now() : pressedAt);
    } catch {
      problem.value = 'That recording did not work. Reload the page and try again; everything you said before is kept.';
      return undefined;
    } finally {
      busy = false;
      recording = undefined;
      pausedAt = undefined;
      purpose.value = undefined;
      picture.close();
      phase.value = undefined;
      device.release();
    }
  }

  async function runTake(
    what: TakePurpose,
    shown: Sound['picture'],
    ended: Promise<Ending>,
    pressedAt: number,
  ): Promise<Take | undefined> {
    const { context, tap } = device.path();
    phase.value = 'starting';
    problem.value = null;
    progress.value = 0;
    purpose.value = what;
    preview.value = undefined;
    begunAt = pressedAt;
    leads = shown ? 0 : 1;
    notes = [];
    keepNote = undefined;
    if (context.state !== 'running') await context.resume();

    const id = crypto.randomUUID();
    const chunks = new ChunkKeeper();
    const running = await device.path().record((chunk) => chunks.keep(chunk), picture.stream.value);
    recording = running;
    tap?.begin();
    const microphone = device.speak(shown ? 0 : LEAD_SECONDS);
    phase.value = 'recording';
    performance.measure('record-key-to-recording', { start: pressedAt });
    const { mediaType } = running;
    const startedAt = new Date().toISOString();
    const kept = { id, person: session.person!.id, purpose: what, picture: shown, mediaType, microphone, startedAt };
    void beginTake(kept).then(
      (store) => {
        chunks.keepIn(store.save);
        keepNote = (what) => void store.note(what).catch(() => undefined);
        notes.forEach(keepNote);
      },
      () => undefined,
    );

    const how = await ended;
    performance.mark('let-go');
    const length = seconds();
    const wanted = length >= SHORTEST_HOLD_SECONDS;
    phase.value = 'finishing';
    const tapped = await tap?.end();
    device.hush();
    if (!wanted || how === 'leave') {
      await running.end();
      if (wanted) letGoOfTake(id);
      else await forgetTake(id).catch(() => undefined);
      if (how === 'keep') problem.value = NOTHING_RECORDED;
      return undefined;
    }
    const original = how === 'lost' ? running.end() : running.stop();
    const take = await finishedTake(
      { tapped, rate: context.sampleRate, microphone, picture: shown, original, length, whole: what.whole },
      {
        onHeard: (heard) => {
          if (how !== 'discard') preview.value = { ...heard, id, purpose: what };
        },
        onProgress: (share) => (progress.value = share),
      },
    );
    if (take) return { id, purpose: what, ...take, notes, thrown: how === 'discard' };
    await forgetTake(id).catch(() => undefined);
    if (how === 'keep') problem.value = NOTHING_RECORDED;
    return undefined;
  }

  function pause(): void {
    if (phase.value !== 'recording') return;
    pausedAt = performance.now();
    device.path().tap?.pause();
    recording?.pause();
    phase.value = 'paused';
  }

  function resume(): void {
    if (phase.value !== 'paused' || pausedAt === undefined) return;
    begunAt += performance.now() - pausedAt;
    pausedAt = undefined;
    if (leads > 0) leads++;
    device.path().tap?.resume();
    recording?.resume();
    phase.value = 'recording';
  }

  async function listen(seconds: number): ReturnType<Recorder['listen']> {
    if (busy || !(await device.warm())) return undefined;
    const { tap, context } = device.path();
    if (!tap) return undefined;
    busy = true;
    device.hold();
    try {
      if (context.state !== 'running') await context.resume();
      tap.begin();
      device.speak(0);
      await new Promise((resolve) => setTimeout(resolve, seconds * 1000));
      device.hush();
      const { samples } = await tap.end();
      return samples && { samples, rate: context.sampleRate };
    } finally {
      busy = false;
      device.release();
    }
  }

  return {
    ...{ status, problem, speaking, purpose, preview, progress, seconds, record, pause, resume, listen },
    moment() {
      const { context, tap } = device.path();
      return tap ? tap.momentOf(context.currentTime) : seconds() + leads * LEAD_SECONDS;
    },
    note(what) {
      if (phase.value !== 'recording' && phase.value !== 'paused') return;
      notes.push(what);
      keepNote?.(what);
    },
    practising: device.practising,
    picture: picture.stream,
    device: device.chosen,
    track: device.track,
    warm: device.warm,
    cool: device.cool,
    usePractice: (practise) => device.change(() => (device.practising.value = practise)),
    useDevice: (id) =>
      device.change(() => {
        device.practising.value = false;
        device.chosen.value = id;
      }),
    stop: () => finish('keep'),
    discard: () => finish('discard'),
    leave: () => finish('leave'),
    kept: ({ id }) => forgetTake(id).catch(() => undefined),
    read: (samples) => {
      if (device.state.value !== 'off') device.path().read(samples);
    },
  };
});
