import type { Anchor } from '#core/anchor';
import type { NewRecording } from '#contract/recordings';
import type { Remark } from '#contract/remarks';
import { NO_WORDS } from '#contract/said';
import type { Sound } from '#contract/sound';
import { createGlobalState, useLocalStorage } from '@vueuse/core';
import { computed, nextTick, onBeforeUnmount, ref, watch } from 'vue';
import { useDictation } from '../../recorder/use-dictation.ts';
import { useInterruptedTakes } from '../../recorder/use-interrupted-takes.ts';
import { useRecorder, type Preview, type Take } from '../../recorder/use-recorder.ts';
import { useOutbox } from '../../outbox/outbox.ts';
import { usePlayer } from '../../player/player.ts';
import { useSession } from '../../session/session.ts';
import { freshName, freshSound } from '../../player/media-url.ts';
import { letGoOfBytes } from '../../player/local-media.ts';
import { aboutOf } from '../../recorder/take-kind.ts';
import { useFeedbackActions } from '../../feedback/use-feedback-actions.ts';
import { trackOf } from '../../talk/track-of.ts';
import { REMARK_TAKE, type RemarkTake } from './remark-take.ts';

interface Options {
  submission: () => string;
  /** Called with the new remark when it stands in the margin. */
  onSaid: (remark: string) => void;
  /** A take was thrown away; `back` keeps it after all. */
  onThrown: (back: () => Promise<void>) => void;
  /** A talk-through is safe, with all that was done meanwhile. */
  onTalked: (remark: string, passages: number) => void;
}

/** Seconds in which a take that was thrown away can be brought back. */
export const BRING_BACK_SECONDS = 8;

/** Seconds that are counted before the recording begins; 0 where nobody wants that. */
export const useCountdownSeconds = createGlobalState(() => useLocalStorage('countdown', 0));

/** From the key to the ribbon: what a take becomes on the desk. */
export function useSpeaking({ submission, onSaid, onThrown, onTalked }: Options) {
  const recorder = useRecorder();
  const session = useSession();
  const outbox = useOutbox();
  const player = usePlayer();
  const actions = useFeedbackActions();
  const nextKind = ref('strength');
  const dictation = useDictation();
  const takes = useInterruptedTakes(REMARK_TAKE, submission, (take, about) => keep(take, about));
  const countdownSeconds = useCountdownSeconds();
  /** Seconds that are left before the recording begins. */
  const counting = ref(0);
  let counted: ((go: boolean) => void) | undefined;

  const speak = (anchor: Anchor, picture: Sound['picture'] = null): Promise<void> =>
    run({ anchor, kind: nextKind.value }, picture);

  /** About how a criterion was met in the whole work. */
  const speakAbout = (criterion: string): Promise<void> =>
    run({ anchor: { type: 'whole' }, kind: nextKind.value, criterion });

  /** The new take stands in the place of the old one, which is put aside. */
  const speakAgain = ({ id, anchor, kind, criterion, ink }: Remark): Promise<void> =>
    run({ anchor, kind, instead: id, ink, ...(criterion && { criterion }) });

  /** Goes on until it is ended, whatever is done meanwhile. */
  const talkThrough = (): Promise<void> => run({ anchor: { type: 'whole' }, kind: nextKind.value, talk: true });

  async function run(about: RemarkTake, picture: Sound['picture'] = null): Promise<void> {
    player.stop();
    const work = submission();
    if (!(await countDown())) return;
    const ear = dictation.listen();
    const take = await recorder.record({ type: REMARK_TAKE.type, place: work, about, whole: about.talk }, picture);
    const draft = ear?.draft() ?? null;
    if (take?.thrown) offerBack(take, about, await draft);
    else if (take) await keep(take, about, await draft);
    const preview = recorder.preview.value;
    recorder.preview.value = undefined;
    if (!preview) return;
    outbox.settle(preview.id);
    letGoOfBytes(freshName(preview.id));
  }

  /** @returns whether to begin; `hush` in between says no */
  async function countDown(): Promise<boolean> {
    if (counting.value > 0) return false;
    const left = new Promise<boolean>((resolve) => (counted = resolve));
    counting.value = countdownSeconds.value;
    if (counting.value === 0) return true;
    const timer = setInterval(() => {
      if (--counting.value === 0) counted?.(true);
    }, 1000);
    const go = await left;
    clearInterval(timer);
    counting.value = 0;
    return go;
  }

  function hush(): void {
    counted?.(false);
    recorder.stop();
  }

  function offerBack(take: Take, about: RemarkTake, draft: NewRecording['draft']): void {
    const timer = setTimeout(() => void recorder.kept(take), BRING_BACK_SECONDS * 1000);
    onThrown(async () => {
      clearTimeout(timer);
      await keep(take, about, draft);
    });
  }

  /** A remark and its recording come into the world together, under one id. */
  async function keep(
    { id, purpose: { place }, sound, edit, original, notes }: Take,
    about: RemarkTake,
    draft: NewRecording['draft'] = null,
  ): Promise<void> {
    outbox.announce(id);
    const { criterion, ink = null, talk: goesOn, ...where } = about;
    const talk = goesOn ? trackOf(notes, edit) : null;
    await actions.make(place, {
      ...{ id, ...where, recording: { id, sound, edit, draft } },
      words: { ink, talk, ...(criterion && { criterion }) },
    });
    if (place === submission() && fresh.value?.id !== id) onSaid(id);
    if (original) await actions.keepOriginal(place, id, await original);
    outbox.settle(id);
    await recorder.kept({ id });
    if (talk && place === submission()) onTalked(id, talk.filter(({ type }) => type === 'select').length);
  }

  /** The remark that is being made of a take: it can be heard, but has no file yet. */
  const fresh = computed((): Remark | undefined => {
    const preview = recorder.preview.value;
    const about = aboutOf(REMARK_TAKE, preview?.purpose);
    return preview && about && preview.purpose.place === submission()
      ? freshRemark(preview, about, session.person!)
      : undefined;
  });
  watch(fresh, (remark) => {
    if (!remark) return;
    outbox.announce(remark.id);
    onSaid(remark.id);
    void nextTick(() => performance.measure('let-go-to-ribbon', 'let-go'));
  });

  // Whoever goes on to another work has said what they wanted to say about this one.
  watch(submission, hush);
  onBeforeUnmount(() => {
    hush();
    recorder.cool();
  });

  return {
    nextKind,
    fresh,
    prepare: dictation.prepare,
    speak,
    speakAbout,
    speakAgain,
    talkThrough,
    hush,
    counting,
    ...takes,
  };
}

const freshRemark = (
  { id, wav, duration, peaks }: Preview,
  { anchor, kind, criterion, ink = null }: RemarkTake,
  { id: author, name }: Remark['author'],
): Remark => {
  const madeAt = new Date().toISOString();
  return {
    ...NO_WORDS,
    ...{
      id,
      kind,
      anchor,
      criterion: criterion ?? null,
      ink,
      madeAt,
      author: { id: author, name },
      file: null,
      takenAt: null,
      dealtAt: null,
      settled: null,
      replies: [],
    },
    recording: {
      ...{ id, madeAt, edit: null, language: 'en', transcript: null, translations: [], speech: null, heard: null },
      sound: freshSound(id, wav, { duration, peaks, picture: null }),
    },
  };
};
