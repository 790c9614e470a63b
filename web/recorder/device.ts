import { useLocalStorage } from '@vueuse/core';
import { ref, type Ref } from 'vue';
import type { Microphone } from '#contract/sound';
import { isMissing, microphoneSentence, openMicrophone } from './microphone.ts';
import { PracticeMicrophone } from './practice-microphone.ts';
import { SoundPath } from './sound-path.ts';
import { warmUp } from './sound-work.ts';

export interface MicrophoneDevice {
  state: Ref<'off' | 'opening' | 'ready'>;
  /** What is wrong, as a sentence; null where nothing is. */
  problem: Ref<string | null>;
  practising: Ref<boolean>;
  /** The microphone that was chosen, by the browser's identifier; empty where it is the system's choice. */
  chosen: Ref<string>;
  /** Opens it, unless it is open; answers whether it is. */
  warm(): Promise<boolean>;
  /** Gives it back to the system, as soon as nobody holds it. */
  cool(): void;
  /** Until `release` it is neither given back nor changed. */
  hold(): void;
  release(): void;
  /** Takes another one; false where this one is held. */
  change(choose: () => void): Promise<boolean>;
  /** The way of the sound from the microphone to the encoder. */
  path(): SoundPath;
  /** What the microphone gives; undefined where it is off, or the practice microphone. */
  track(): MediaStreamTrack | undefined;
  /** Has the practice microphone begin its next sentence, so many seconds into the recording. */
  speak(from: number): Microphone;
  hush(): void;
}

interface Options {
  /** Whether somebody without a microphone may practise. */
  mayPractise: () => Promise<boolean>;
  /** It was unplugged while it was held. */
  onLost: () => void;
}

/** The one microphone of the app: the device's, or the practice microphone. */
export function microphoneDevice({ mayPractise, onLost }: Options): MicrophoneDevice {
  const state: MicrophoneDevice['state'] = ref('off');
  const problem = ref<string | null>(null);
  const practising = ref(false);
  const chosen = useLocalStorage('microphone', '');
  let path: SoundPath | undefined;
  let practice: PracticeMicrophone | undefined;
  let stream: MediaStream | undefined;
  let opening: Promise<boolean> | undefined;
  let held = false;
  let cooling = false;

  const soundPath = (): SoundPath => (path ??= new SoundPath(new AudioContext({ latencyHint: 'interactive' })));

  function warm(): Promise<boolean> {
    cooling = false;
    if (state.value !== 'off') return opening ?? Promise.resolve(true);
    state.value = 'opening';
    opening = open().finally(() => {
      opening = undefined;
      if (cooling) cool();
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
      state.value = 'ready';
      return true;
    } catch (error) {
      state.value = 'off';
      problem.value = microphoneSentence(error);
      if (!isMissing(error) || practising.value || !(await mayPractise())) return false;
      practising.value = true;
      state.value = 'opening';
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
    stream = await openMicrophone(chosen.value || undefined);
    for (const track of stream.getAudioTracks()) track.addEventListener('ended', unplugged, { once: true });
    return new MediaStreamAudioSourceNode(context, { mediaStream: stream });
  }

  function unplugged(): void {
    state.value = 'off';
    if (held) onLost();
    problem.value = 'The microphone was unplugged. What you had said is kept. Plug it in again to go on.';
  }

  function cool(): void {
    cooling = held || opening !== undefined;
    if (cooling) return;
    for (const track of stream?.getTracks() ?? []) track.stop();
    stream = undefined;
    state.value = 'off';
  }

  return {
    ...{ state, problem, practising, chosen, warm, cool },
    hold: () => void (held = true),
    release: () => {
      held = false;
      if (cooling) cool();
    },
    change: async (choose) => {
      if (held) return false;
      cool();
      choose();
      return warm();
    },
    path: soundPath,
    track: () => (practising.value ? undefined : stream?.getAudioTracks()[0]),
    speak: (from) =>
      practising.value && practice ? { type: 'practice', sentence: practice.speak(), from } : { type: 'device' },
    hush: () => practice?.hush(),
  };
}
