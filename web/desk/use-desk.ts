import type { Anchor } from '#core/anchor';
import type { Rubric } from '#core/grading';
import { readNextWaiting } from '#contract/waiting';
import type { Remark } from '#contract/remarks';
import { useIntervalFn, useLocalStorage } from '@vueuse/core';
import { storeToRefs } from 'pinia';
import { computed, nextTick, onBeforeUnmount, provide, ref, shallowRef, watch, type Ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useEarlier } from '../earlier/use-earlier.ts';
import { useFeedback } from '../feedback/feedback-store.ts';
import { useMarginKey } from '../feedback/margin-key.ts';
import { useQueueFilter } from '../feedback/queue.ts';
import { useAnchorName } from '../feedback/use-anchor-name.ts';
import { useFeedbackActions } from '../feedback/use-feedback-actions.ts';
import { useInkTools } from '../ink/ink-tools.ts';
import { useMarginFilter } from '../margin/use-margin-filter.ts';
import { useRibbonFocus } from '../margin/use-ribbon-focus.ts';
import { recordingUrl } from '../player/media-url.ts';
import { usePlayer } from '../player/player.ts';
import { useHeard } from '../player/use-heard.ts';
import { microphoneIsGranted } from '../recorder/microphone.ts';
import { useRecorder } from '../recorder/use-recorder.ts';
import { provideRecordingActions } from '../recordings/recording-actions.ts';
import { call, sentenceOf } from '../session/api.ts';
import { useSession } from '../session/session.ts';
import { useLoaded } from '../shell/use-loaded.ts';
import { DESK, type Desk } from './desk.ts';
import type { DrawerName } from './drawer/drawer-name.ts';
import { warmBank } from './drawer/warm-bank.ts';
import type { Notice } from './notice.ts';
import { useChoosing } from './use-choosing.ts';
import { useClass } from './use-class.ts';
import { COMMANDS } from './commands.ts';
import { BANKING, useDeskEntries } from './use-desk-entries.ts';
import { useCommandKeys } from '../shell/use-command-keys.ts';
import { useForms } from './use-forms.ts';
import { useInk } from './use-ink.ts';
import { useMovingStamp } from './use-moving-stamp.ts';
import { useOthers } from './use-others.ts';
import { useTalkDesk } from './use-talk-desk.ts';
import { usePace } from './use-pace.ts';
import { useUndo } from './use-undo.ts';
import { useWriting } from './use-writing.ts';
import { useSpeaking } from './voice/use-speaking.ts';

/** How often it is asked whether words have been made out. */
const LISTENING_MILLISECONDS = 1200;

/** What the page of the desk is drawn from; its parts find what they share by `useDesk`. */
export function useDeskPage(
  submission: () => string,
  folio: () => (Element & { focus(options?: FocusOptions): void }) | null,
) {
  const store = useFeedback();
  const { work, feedback } = storeToRefs(store);
  const session = useSession();
  const recorder = useRecorder();
  const player = usePlayer();
  const route = useRoute();
  const router = useRouter();
  const actions = useFeedbackActions();
  const pace = usePace();
  const marginKey = useMarginKey();
  const anchorName = useAnchorName();
  const queueFilter = useQueueFilter();
  provideRecordingActions(actions);

  const { focused, focusRibbon } = useRibbonFocus();
  const notice = shallowRef<Notice>();
  const cutting = ref<string>();
  const mending = ref<string>();
  const apart = ref<string>();
  const drawer = useDrawer();
  const banking = shallowRef<Anchor>();
  const choosing = useChoosing(folio, () => work.value?.folio);
  const earlier = useEarlier(() => work.value);
  const klass = useClass(() => work.value);

  const remarks = computed((): Remark[] => {
    const kept = feedback.value?.remarks ?? [];
    const fresh = speaking.fresh.value;
    const known = fresh && [...kept, ...(feedback.value?.aside ?? [])].some(({ id }) => id === fresh.id);
    return fresh && !known ? [...kept, fresh] : kept;
  });
  const filter = useMarginFilter(() => remarks.value, submission);
  const returned = computed(() => (feedback.value?.returnedAt ?? null) !== null);
  /** The same from answer to answer, so that nothing is drawn again for it. */
  const rubric = computed((before?: Rubric): Rubric => {
    const now = feedback.value?.rubric ?? [];
    return before && JSON.stringify(before) === JSON.stringify(now) ? before : now;
  });
  const overall = computed(() =>
    remarks.value.find(
      ({ anchor, recording, criterion, talk }) => anchor.type === 'whole' && recording && !criterion && !talk,
    ),
  );
  /** The remark that will be in focus in a moment: keys mean it already. */
  const coming = ref<string>();
  const focusedRemark = computed(() => remarks.value.find(({ id }) => id === (coming.value ?? focused.value)));
  const open = computed(() => (returned.value ? undefined : focusedRemark.value));

  const { error, load } = useLoaded(begin, submission);
  const speaking = useSpeaking({
    submission,
    onSaid: made,
    onThrown: (back) => (notice.value = { text: 'The recording was thrown away.', undo: back, way: 'Bring it back' }),
    onTalked: (remark, passages) => {
      if (passages > 1) desk.takeApart({ id: remark });
    },
  });
  const {
    talking,
    show,
    begin: beginTalking,
  } = useTalkDesk({
    ...{ submission, focused, speaking, root: folio },
    folio: () => work.value?.folio,
    target: () => choosing.target.value,
    remarks: () => remarks.value,
    returned: () => returned.value,
  });
  const writing = useWriting(submission, made);
  const entries = useDeskEntries(
    () => work.value,
    () => [
      ...filter.shown.value,
      ...earlier.placed.value.map(({ remark, anchor }) => ({ id: remark.id, kind: remark.kind, anchor })),
    ],
    () => writing.draft.value,
    () =>
      banking.value && banking.value.type !== 'whole'
        ? { id: BANKING, kind: speaking.nextKind.value, anchor: banking.value }
        : undefined,
  );
  // Answers by voice that the teacher listens to.
  useHeard(
    computed(() =>
      remarks.value.flatMap(({ replies }) =>
        replies.flatMap(({ author, recording }) => (recording && author.id !== session.person?.id ? [recording] : [])),
      ),
    ),
    actions.heard,
  );

  function made(remark: string): void {
    choosing.drop();
    coming.value = remark;
    // Drawing it and all that one in focus offers would be a long task, so it is done in two.
    setTimeout(() => {
      coming.value = undefined;
      void focusRibbon(remark);
    });
  }

  async function begin(): Promise<void> {
    focused.value = cutting.value = mending.value = notice.value = undefined;
    choosing.drop();
    await store.load(submission());
    // Whoever learns in this course comes to their own work in another way.
    if (work.value?.student.id === session.person?.id)
      return void (await router.replace({ name: 'returned', params: { submission: submission() } }));
    pace.visit(submission());
    if (!returned.value) warmBank(submission());
    void nextTick(() => folio()?.focus({ preventScroll: true }));
    await showWanted();
    await Promise.all([klass.load(), speaking.look(), work.value && speaking.prepare(work.value)]);
    if (!returned.value && (await microphoneIsGranted())) await recorder.warm();
  }

  /** The remark that the address names. */
  async function showWanted(): Promise<void> {
    const wanted = route.hash.slice(1);
    if (remarks.value.some(({ id }) => id === wanted)) await focusRibbon(wanted);
  }
  watch(() => route.hash, showWanted);

  onBeforeUnmount(() => player.stop());

  // Nobody waits for a transcript; it comes while the teacher goes on.
  const listening = useIntervalFn(() => void store.lookAtSpeech(), LISTENING_MILLISECONDS, { immediate: false });
  watch(
    () => store.listening,
    (now) => (now ? listening.resume() : listening.pause()),
    { immediate: true },
  );

  const others = useOthers(submission, () => void store.lookAgain());
  const targetName = computed(() => choosing.target.value && anchorName(choosing.target.value));
  const target = computed(() =>
    choosing.target.value && targetName.value ? { anchor: choosing.target.value, name: targetName.value } : undefined,
  );
  const hint = computed(() => {
    if (choosing.boxing.value && !choosing.chosen.value) return 'Drag over the part you want to speak about.';
    if (talking.on.value) return '';
    if (drawing.value) return 'Draw on the work. What you draw together is one remark; press Done to speak about it.';
    if (focusedRemark.value?.ink && !focusedRemark.value.recording && !returned.value && !targetName.value)
      return 'Hold the space bar and speak about what you drew.';
    if (targetName.value) return `Hold the space bar and speak about ${targetName.value}.`;
    if (overall.value) return `${choosing.how.value}, then hold the space bar and speak.`;
    return `${choosing.how.value}, hold the space bar and speak. With nothing selected, you speak about the whole work.`;
  });
  const forms = useForms({ choosing, writing, speaking, targetName, returned, notice });
  const stamp = useMovingStamp({ focused: focusedRemark, returned, choosing });
  const { on: drawing } = useInkTools();
  useInk({
    work: () => work.value,
    returned: () => returned.value,
    kind: () => speaking.nextKind.value,
    page: choosing.pageInView,
    show: (remark) => void focusRibbon(remark),
    talking,
  });
  const { undo, redo, wayBack } = useUndo(submission, notice);

  function speak(): void {
    if (returned.value || !feedback.value || talking.on.value) return;
    notice.value = undefined;
    // Keys pressed in quick succession must not act on the selection before.
    const selected = choosing.now();
    if (selected) return void speaking.speak(selected);
    // What was drawn gets its voice.
    if (open.value?.ink && !open.value.recording) return void speaking.speakAgain(open.value);
    if (!overall.value) return void speaking.speak({ type: 'whole' });
    notice.value = {
      text: 'You have already spoken about the whole work. Select the words you want to speak about.',
    };
  }

  async function putAside(remark: Remark): Promise<void> {
    await actions.putAside(remark);
    focused.value = undefined;
    notice.value = { text: 'The remark was put aside.', undo };
  }

  async function readied(ready: boolean): Promise<void> {
    await store.setReady(ready);
    notice.value = ready ? { text: 'Ready to return.', undo: () => readied(false), way: 'Not ready yet' } : undefined;
    void klass.load();
  }

  const told = (failure: unknown): void => void (notice.value = { text: sentenceOf(failure) });

  async function toNext(from: string): Promise<void> {
    const { next } = await call(readNextWaiting, { body: { ...queueFilter.value, after: from } });
    if (!next) notice.value = { text: 'Nothing else is in your queue.' };
    else
      await router.push({
        name: 'desk',
        params: { submission: next.submission },
        ...(next.remark && { hash: `#${next.remark}` }),
      });
  }

  const desk: Desk = {
    submission: computed(submission),
    student: computed(() => work.value?.student.name ?? ''),
    ...{ rubric, returned, focused, cutting, mending, apart, target, notice, writing, wayBack },
    nextKind: speaking.nextKind,
    banking,
    classNames: computed(() => klass.students.value.map(({ name }) => name)),
    counting: speaking.counting,
    speak,
    /** Letting the key go ends a remark, but not a talk-through. */
    hush: () => talking.on.value || speaking.hush(),
    talkThrough() {
      if (recorder.speaking.value || speaking.counting.value > 0) speaking.hush();
      else if (!returned.value && feedback.value) beginTalking();
    },
    talking,
    press: () => (recorder.speaking.value || speaking.counting.value > 0 ? speaking.hush() : speak()),
    takeApart({ id }) {
      apart.value = id;
      drawer.value = 'parts';
    },
    speakAgain: (remark) => void speaking.speakAgain(remark),
    speakAbout(criterion) {
      if (talking.on.value) return;
      if (recorder.speaking.value || speaking.counting.value > 0) speaking.hush();
      else void speaking.speakAbout(criterion);
    },
    writeAbout: (criterion) => writing.begin({ type: 'whole' }, speaking.nextKind.value, { criterion }),
    goTo: (remark) => void focusRibbon(remark),
    score(after) {
      drawer.value = 'scores';
      void nextTick(() => scoreField(after)?.focus());
    },
    pause: () => (recorder.status.value === 'paused' ? recorder.resume() : recorder.pause()),
    discard() {
      if (speaking.counting.value > 0) return speaking.hush();
      // Nobody throws away ten minutes by the key that ends drawing.
      if (recorder.speaking.value && !talking.on.value) return recorder.discard();
      if (drawing.value) return void (drawing.value = false);
      choosing.choose(undefined);
      choosing.boxing.value = false;
    },
    play() {
      const { recording } = focusedRemark.value ?? {};
      if (recording) void player.toggle(recording.id, recordingUrl(recording));
    },
    faster: player.nextRate,
    setKind(index) {
      const entry = marginKey.key.value[index];
      if (!entry) return;
      if (open.value && !choosing.now() && !talking.on.value) void actions.setKind(open.value, entry.kind);
      else speaking.nextKind.value = entry.kind;
    },
    putAside: () => open.value && void putAside(open.value),
    putRemarkAside: (remark) => void putAside(remark),
    step(by) {
      const index = entries.value.findIndex(({ id }) => id === focused.value);
      const next = entries.value.at(index < 0 && by < 0 ? -1 : index + by);
      if (next && index + by >= -1) void focusRibbon(next.id);
    },
    stepSentence: choosing.stepSentence,
    stepStudent(by) {
      const next = by > 0 ? klass.place.value?.next : klass.place.value?.previous;
      if (next) void router.push({ name: 'desk', params: { submission: next } });
    },
    box: () => void (returned.value || choosing.box()),
    ink: () => void (drawing.value = !drawing.value && !returned.value),
    write: forms.write,
    suggest: forms.suggest,
    react: forms.react,
    film: (picture) => void speaking.speak(choosing.now() ?? { type: 'whole' }, picture),
    editSound() {
      const { recording, id } = open.value ?? {};
      if (recording && !recording.sound.picture) cutting.value = cutting.value === id ? undefined : id;
    },
    mend() {
      if (focusedRemark.value?.recording) mending.value = focusedRemark.value.id;
    },
    open(name) {
      if (returned.value && name === 'bank') return;
      banking.value = name === 'bank' ? (choosing.now() ?? { type: 'whole' }) : undefined;
      drawer.value = drawer.value === name ? 'scores' : name;
    },
    undo: () => void undo(),
    redo: () => void redo(),
    done: () => void (returned.value || readied(true).catch(told)),
    nextInQueue: () => void toNext(submission()).catch(told),
    async putHere(one) {
      const anchor = choosing.now();
      if (!anchor) return;
      await earlier.place(one, anchor);
      choosing.clear();
    },
    lose: (one) => void earlier.place(one, null),
  };
  provide(DESK, desk);
  useCommandKeys(COMMANDS, desk, () => desk.hush());

  watch(choosing.target, (target) => {
    if (target && drawer.value === 'bank') banking.value = target;
  });
  watch(drawer, (name) => {
    if (name !== 'parts') apart.value = undefined;
    if (name !== 'bank') banking.value = undefined;
  });

  // What was done before is no news any more once somebody speaks; and whoever speaks is at work.
  watch(recorder.speaking, (now) => {
    if (now) notice.value = undefined;
    if (now && drawer.value === 'microphone') drawer.value = 'scores';
    pace.busy();
  });

  const shownById = computed(() => new Map(filter.shown.value.map((remark) => [remark.id, remark])));
  const earlierById = computed(() => new Map(earlier.placed.value.map((one) => [one.remark.id, one])));

  return {
    ...{ desk, work, feedback, error, load, drawer, choosing, earlier, klass, filter, entries, forms, stamp, speaking },
    ...{ hint, targetName, shownById, earlierById },
    bringBack: actions.bringBack,
    /** A copy from the bank stands in the margin. */
    dropped(remark: string): void {
      drawer.value = 'scores';
      made(remark);
    },
    async setReturned(returned: boolean): Promise<void> {
      await store.setReturned(returned);
      notice.value = returned
        ? {
            text: 'Returned. You have a minute to think again.',
            undo: () => store.setReturned(false),
            way: 'Take it back',
          }
        : undefined;
      void klass.load();
    },
    setReady: readied,
    others,
    show,
    async pick(id: string): Promise<void> {
      if (show.pick(id)) return;
      await focusRibbon(id);
      if (stamp.moving.value) choosing.takeBox();
    },
  };
}

/** Where the next score is given: the first that is open, after a given criterion where there is one. */
function scoreField(after?: string): HTMLElement | undefined {
  const open = [...document.querySelectorAll<HTMLElement>('[data-open]')];
  const before = after && document.querySelector(`[data-criterion="${after}"]`);
  const next = open.find(
    (part) => part !== before && (!before || before.compareDocumentPosition(part) & Node.DOCUMENT_POSITION_FOLLOWING),
  );
  const part = next ?? open.find((one) => one !== before) ?? document.querySelector('[data-criterion]');
  return part?.querySelector<HTMLElement>('input') ?? undefined;
}

/** What stands at the far right. Whoever speaks for the first time looks at the microphone first. */
function useDrawer(): Ref<DrawerName> {
  const checked = useLocalStorage('microphone-checked', false);
  const drawer = ref<DrawerName>(checked.value ? 'scores' : 'microphone');
  watch(drawer, () => (checked.value = true));
  return drawer;
}
