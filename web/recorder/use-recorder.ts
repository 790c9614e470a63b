import { createGlobalState } from '@vueuse/core';
import { computed, ref, shallowRef, type ComputedRef, type Ref } from 'vue';
import type { Microphone } from '#contract/sound';
import type { KeptSound } from '../shared/changes.ts';
import { useSchool } from '../shared/school.ts';
import { useSession } from '../shared/session.ts';
import { ChunkKeeper } from './chunk-keeper.ts';
import { keptSound } from './kept-sound.ts';
import { isMissing, microphoneSentence, openMicrophone } from './microphone.ts';
import { PracticeMicrophone } from './practice-microphone.ts';
import { LEAD_SECONDS, SoundPath } from './sound-path.ts';
import { beginTake, forgetTake, letGoOfTake, type TakePurpose, type UnfinishedTake } from './takes.ts';

/** Nobody can say anything in less; it was a slip of the finger. */
const SHORTEST_HOLD_SECONDS = 0.25;

const NOTHING_RECORDED = 'Nothing was recorded. Hold the key while you speak, and let go when you have finished.';

/** `lost`: the microphone went away in the middle. `leave`: the person left the page; the take is offered at the next visit. */
type Ending = 'keep' | 'discard' | 'lost' | 'leave';

export type RecorderStatus = 'off' | 'opening' | 'ready' | 'starting' | 'recording' | 'finishing';

export interface Take {
  id: string;
  purpose: TakePurpose;
  sound: KeptSound;
}

export interface Recorder {
  status: Ref<RecorderStatus>;
  /** What is wrong, as a sentence; null where nothing is. */
  problem: Ref<string | null>;
  practising: Ref<boolean>;
  speaking: ComputedRef<boolean>;
  /** What the running take is for. */
  purpose: Ref<TakePurpose | undefined>;
  /** When the running take began, on the clock of `performance.now()`. */
  begunAt: Ref<number>;
  /** Opens the microphone, unless it is open; answers whether it is. */
  warm(): Promise<boolean>;
  /** Gives the microphone back to the system, as soon as no take is running. */
  cool(): void;
  usePractice(practise: boolean): Promise<boolean>;
  /** Records until `stop` or `discard`; undefined where nothing was said. Call `kept` when the take is safe elsewhere. */
  record(purpose: TakePurpose): Promise<Take | undefined>;
  stop(): void;
  discard(): void;
  /** Ends the take without handing it out: it is offered at the next visit. */
  leave(): void;
  kept(take: Pick<Take, 'id'>): Promise<void>;
  /** Measures a take that a page before this one left behind. */
  recover(take: UnfinishedTake): Promise<Take | undefined>;
  read(samples: Float32Array<ArrayBuffer>): void;
}

/** The one recorder of the app, with the one microphone. */
export const useRecorder = createGlobalState((): Recorder => {
  const session = useSession();
  const school = useSchool();
  const status = ref<RecorderStatus>('off');
  const problem = ref<string | null>(null);
  const practising = ref(false);
  const purpose = shallowRef<TakePurpose>();
  const begunAt = ref(0);
  const speaking = computed(() => ['starting', 'recording', 'finishing'].includes(status.value));

  let path: SoundPath | undefined;
  let practice: PracticeMicrophone | undefined;
  let stream: MediaStream | undefined;
  let opening: Promise<boolean> | undefined;
  let busy = false;
  let cooling = false;
  let finish: (how: Ending) => void = () => undefined;

  const soundPath = (): SoundPath => (path ??= new SoundPath(new AudioContext({ latencyHint: 'interactive' })));

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
      target.connect(practising.value ? await practiceSource(target) : await deviceSource(target));
      void target.context.resume();
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
    stream = await openMicrophone();
    for (const track of stream.getAudioTracks()) track.addEventListener('ended', unplugged, { once: true });
    return new MediaStreamAudioSourceNode(context, { mediaStream: stream });
  }

  function unplugged(): void {
    if (status.value === 'recording' || status.value === 'starting') finish('lost');
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

  async function usePractice(practise: boolean): Promise<boolean> {
    if (busy) return false;
    cool();
    practising.value = practise;
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
      return await runTake(what, ended, pressedAt);
    } catch {
      problem.value = 'The recording could not be made. Reload the page and try again; what was said before is kept.';
      return undefined;
    } finally {
      busy = false;
      purpose.value = undefined;
      if (speaking.value) status.value = stream?.active || practising.value ? 'ready' : 'off';
      if (cooling) cool();
    }
  }

  async function runTake(what: TakePurpose, ended: Promise<Ending>, pressedAt: number): Promise<Take | undefined> {
    const { context } = soundPath();
    status.value = 'starting';
    problem.value = null;
    purpose.value = what;
    begunAt.value = pressedAt;
    if (context.state !== 'running') await context.resume();

    const id = crypto.randomUUID();
    const chunks = new ChunkKeeper();
    const recording = await soundPath().record((chunk) => chunks.keep(chunk));
    const microphone = microphoneNow();
    status.value = 'recording';
    performance.measure('record-key-to-recording', { start: pressedAt });
    const { mediaType } = recording;
    const startedAt = new Date().toISOString();
    const record = { id, person: session.person!.id, purpose: what, mediaType, microphone, startedAt };
    void beginTake(record).then(
      (save) => chunks.keepIn(save),
      () => undefined,
    );

    const how = await ended;
    const seconds = (performance.now() - pressedAt) / 1000;
    const wanted = how !== 'discard' && seconds >= SHORTEST_HOLD_SECONDS;
    status.value = 'finishing';
    const blob = how === 'keep' && wanted ? await recording.stop() : await recording.end();
    practice?.hush();
    if (how === 'leave' && wanted) {
      letGoOfTake(id);
      return undefined;
    }
    const sound = wanted ? await keptSound(context, blob, microphone, seconds) : undefined;
    if (sound) return { id, purpose: what, sound };
    await forgetTake(id).catch(() => undefined);
    if (how === 'keep') problem.value = NOTHING_RECORDED;
    return undefined;
  }

  function microphoneNow(): Microphone {
    if (!practising.value || !practice) return { type: 'device' };
    return { type: 'practice', sentence: practice.speak(), from: LEAD_SECONDS };
  }

  async function recover(take: UnfinishedTake): Promise<Take | undefined> {
    const sound = await keptSound(soundPath().context, take.blob, take.microphone, take.seconds);
    return sound && { id: take.id, purpose: take.purpose, sound };
  }

  return {
    status,
    problem,
    practising,
    speaking,
    purpose,
    begunAt,
    warm,
    cool,
    usePractice,
    record,
    stop: () => finish('keep'),
    discard: () => finish('discard'),
    leave: () => finish('leave'),
    kept: ({ id }) => forgetTake(id).catch(() => undefined),
    recover,
    read: (samples) => path?.read(samples),
  };
});
