import type { Recording } from '#contract/recordings';
import type { Remark } from '#contract/remarks';
import { useTimeoutFn } from '@vueuse/core';
import { computed, ref, watch, type ComputedRef, type Ref } from 'vue';
import { recordingUrl } from '../player/media-url.ts';
import { usePlayer } from '../player/player.ts';

export type SpokenRemark = Remark & { recording: Recording };

/** One breath between two remarks. */
const BREATH_MILLISECONDS = 700;

/** Nobody is led away from what they are writing. */
const somebodyWrites = (): boolean => document.activeElement?.matches('textarea, input') === true;

/** What is heard before a remark: the moment of the student's own recording that it is about. */
export interface Moment {
  id: string;
  url: string;
  /** Seconds. */
  start: number;
  end: number;
}

export interface ListenThrough {
  /** Where it is: from 0; none where nobody listens through. */
  place: Ref<number | undefined>;
  now: ComputedRef<SpokenRemark | undefined>;
  count: ComputedRef<number>;
  /** The last remark has been heard to its end. */
  over: Ref<boolean>;
  /** From the remark in hand, or from the first. */
  begin(at?: string): Promise<void>;
  step(by: 1 | -1): Promise<void>;
  pauseOrGoOn(): Promise<void>;
  end(): void;
}

/** Plays remarks one after another and leads along the work. */
export function useListenThrough(
  remarks: () => readonly Remark[],
  lead: (remark: string) => Promise<void>,
  momentOf: (remark: Remark) => Moment | undefined = () => undefined,
): ListenThrough {
  const player = usePlayer();
  const spoken = computed(() => remarks().filter((one): one is SpokenRemark => one.recording !== null));
  const at = ref<string>();
  const over = ref(false);
  const place = computed(() => {
    const index = spoken.value.findIndex(({ id }) => id === at.value);
    return index < 0 ? undefined : index;
  });
  const now = computed(() => spoken.value[place.value ?? -1]);
  const breath = useTimeoutFn(() => step(1), BREATH_MILLISECONDS, { immediate: false });

  async function play(remark: SpokenRemark | undefined): Promise<void> {
    if (!remark) return;
    breath.stop();
    over.value = false;
    at.value = remark.id;
    void lead(remark.id);
    const moment = momentOf(remark);
    if (moment) await player.playStretch(moment.id, moment.url, moment);
    else await say(remark);
  }

  const say = ({ recording }: SpokenRemark): Promise<void> => player.playFrom(recording.id, recordingUrl(recording), 0);
  /** What is played for a remark: the moment that it is about, and then itself. */
  const isOf = (remark: SpokenRemark, id: string | undefined): boolean =>
    id === remark.recording.id || (id !== undefined && id === momentOf(remark)?.id);

  const step = (by: 1 | -1): Promise<void> => play(spoken.value[(place.value ?? -1) + by]);

  function end(): void {
    breath.stop();
    if (now.value && isOf(now.value, player.current.value)) player.stop();
    at.value = undefined;
  }

  player.onEnded((recording) => {
    if (now.value && recording === momentOf(now.value)?.id) return void say(now.value);
    if (recording !== now.value?.recording.id) return;
    if (place.value! + 1 === spoken.value.length) over.value = true;
    else if (!somebodyWrites()) breath.start();
  });

  // Whoever plays another remark by hand goes on from there; whoever plays something else has had enough.
  watch(player.current, (recording) => {
    if (!now.value || !recording || isOf(now.value, recording)) return;
    breath.stop();
    at.value = spoken.value.find((one) => one.recording.id === recording)?.id;
  });

  return {
    place,
    now,
    over,
    count: computed(() => spoken.value.length),
    begin: (remark) => play(spoken.value.find(({ id }) => id === remark) ?? spoken.value[0]),
    step,
    async pauseOrGoOn() {
      if (breath.isPending.value) return breath.stop();
      if (over.value) return play(spoken.value[0]);
      if (!now.value) return;
      const moment = momentOf(now.value);
      if (moment && player.current.value === moment.id) return player.toggle(moment.id, moment.url);
      await player.toggle(now.value.recording.id, recordingUrl(now.value.recording));
    },
    end,
  };
}
