import type { BankedRemark } from '#contract/bank';
import { putNoteAside, type Note, type NotePlace } from '#contract/notes';
import { computed, onBeforeUnmount, watch } from 'vue';
import { useBankActions } from '../bank/use-bank-actions.ts';
import { recordingOf } from '../feedback/changes/recorded.ts';
import type { MadeRecording } from '../feedback/use-feedback-actions.ts';
import { useOutbox } from '../outbox/outbox.ts';
import { rememberBytes } from '../player/local-media.ts';
import { soundBlob } from '../player/media-url.ts';
import { call } from '../session/api.ts';
import { useSession } from '../session/session.ts';
import type { SayNote } from './note-changes.ts';
import { samePlace, useNoteStore } from './note-store.ts';

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

/** The notes of a course and its assignments for its teachers, those included that are on their way. */
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

  function add(change: Omit<SayNote, 'note' | 'author' | 'madeAt'>, note: string = crypto.randomUUID()): Promise<void> {
    const { id, name } = session.person!;
    const whole = { ...change, note, author: { id, name }, madeAt: new Date().toISOString() };
    return outbox.add({ subject: SUBJECT, about: course()!, touches: [note], change: whole });
  }

  return {
    at: (place) => notes.value.filter((note) => samePlace(note.at, place)),
    async speak(at, recording) {
      rememberBytes(recording.sound);
      await add({ content: { ...NOTHING, at }, recording, banked: null, shown: null }, recording.id);
    },
    write: (at, text) => add({ content: { ...NOTHING, at, text }, recording: null, banked: null, shown: null }),
    async sayAgain(at, kept) {
      const banked = kept;
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
