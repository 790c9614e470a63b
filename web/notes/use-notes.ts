import { asDropped, type BankedRemark } from '#contract/bank';
import { putNoteAside, readNotes, type Note, type NotePlace } from '#contract/notes';
import { reportHeard, type Recording } from '#contract/recordings';
import { createGlobalState } from '@vueuse/core';
import { computed, onBeforeUnmount, shallowRef, watch } from 'vue';
import { useBankActions } from '../bank/use-bank-actions.ts';
import { recordingOf } from '../feedback/changes/recorded.ts';
import type { MadeRecording } from '../feedback/use-feedback-actions.ts';
import { useOutbox } from '../outbox/outbox.ts';
import { rememberBytes } from '../player/local-media.ts';
import { soundBlob } from '../player/media-url.ts';
import { useHeard } from '../player/use-heard.ts';
import { call } from '../session/api.ts';
import { useSession } from '../session/session.ts';
import type { SayNote } from './note-changes.ts';

/** The name of our changes in the outbox. */
export const SUBJECT = 'notes';

const NOTHING = { name: '', text: '', link: null, reaction: null, suggestion: null, tags: [] };

export interface Notes {
  at(place: NotePlace): Note[];
  speak(at: NotePlace, recording: MadeRecording): Promise<void>;
  write(at: NotePlace, text: string): Promise<void>;
  sayAgain(at: NotePlace, banked: BankedRemark): Promise<void>;
  putAside(note: Note): Promise<void>;
}

/** The notes of each course, as the server has them: several parts of a page show some of them. */
const useNoteStore = createGlobalState(() => {
  const courses = shallowRef<ReadonlyMap<string, Note[]>>(new Map());
  const asked = new Map<string, Promise<void>>();

  function load(course: string): Promise<void> {
    // Where the server cannot be asked, what is known stays.
    const loading = call(readNotes, { params: { course } })
      .then(
        (notes) => void (courses.value = new Map(courses.value).set(course, notes)),
        () => undefined,
      )
      .finally(() => asked.get(course) === loading && asked.delete(course));
    asked.set(course, loading);
    return loading;
  }
  return {
    load,
    ensure: (course: string): Promise<void> => asked.get(course) ?? load(course),
    of: (course: string): readonly Note[] => courses.value.get(course) ?? [],
  };
});

const same = (a: NotePlace, b: NotePlace): boolean =>
  a.place === b.place &&
  ('assignment' in a ? a.assignment : '') === ('assignment' in b ? b.assignment : '') &&
  ('question' in a ? a.question : '') === ('question' in b ? b.question : '');

/** The notes of a course and its assignments, those included that are on their way. */
export function useNotes(course: () => string | undefined): Notes {
  const outbox = useOutbox();
  const session = useSession();
  const bank = useBankActions();
  const store = useNoteStore();
  const load = (): Promise<void> => store.load(course()!);
  watch(course, (id) => id && void store.ensure(id), { immediate: true });
  const notes = computed(() => {
    const kept = store.of(course() ?? '');
    const pending = course() ? (outbox.changesFor(SUBJECT, course()!) as SayNote[]).map(noteOf) : [];
    return [...kept, ...pending.filter(({ id }) => !kept.some((one) => one.id === id))];
  });
  onBeforeUnmount(outbox.onSent(({ subject }) => void (subject === SUBJECT && load())));
  onBeforeUnmount(bank.onSent(() => void load()));

  useHeard(
    computed(() =>
      notes.value.flatMap(({ author, recording }) =>
        recording && author.id !== session.person?.id ? [recording] : [],
      ),
    ),
    async (recording: Recording, finished) => {
      await call(reportHeard, { params: { recording: recording.id }, body: { finished } }).catch(() => undefined);
      await load();
    },
  );

  function add(change: Omit<SayNote, 'note' | 'author' | 'madeAt'>, note: string = crypto.randomUUID()): Promise<void> {
    const { id, name } = session.person!;
    const whole = { ...change, note, author: { id, name }, madeAt: new Date().toISOString() };
    return outbox.add({ subject: SUBJECT, about: course()!, touches: [note], change: whole });
  }

  return {
    at: (place) => notes.value.filter((note) => same(note.at, place)),
    async speak(at, recording) {
      rememberBytes(recording.sound);
      await add({ content: { ...NOTHING, at }, recording, banked: null, shown: null }, recording.id);
    },
    write: (at, text) => add({ content: { ...NOTHING, at, text }, recording: null, banked: null, shown: null }),
    async sayAgain(at, kept) {
      const banked = asDropped(session.person!.id, kept);
      const note = crypto.randomUUID();
      const { name, text, link, reaction, suggestion, tags, recording } = banked;
      if (recording) rememberBytes({ sha256: recording.sound.sha256, blob: await soundBlob(recording) });
      const content = { at, name, text, link, reaction, suggestion, tags };
      await add({ content, recording: null, banked: banked.id, shown: recording && { ...recording, id: note } }, note);
    },
    async putAside({ id }) {
      await call(putNoteAside, { params: { note: id }, body: { aside: true } });
      await load();
    },
  };
}

const noteOf = ({ note, content, recording, shown, author, madeAt }: SayNote): Note => ({
  ...content,
  ...{ id: note, author, madeAt, listeners: [] },
  recording: recording ? recordingOf(recording, madeAt) : shown,
});
