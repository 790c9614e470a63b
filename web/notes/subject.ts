import type { Subject } from '../outbox/subjects.ts';
import { letGoOfBytes } from '../player/local-media.ts';
import { SayNote, sendNote } from './note-changes.ts';

/** How notes are read back from the browser's storage and sent. */
export const noteSubject: Subject<SayNote> = {
  read(kept) {
    const change = SayNote.parse(kept);
    return { change, touches: [change.note] };
  },
  async send(course, change) {
    const made = await sendNote(course, change);
    if (change.recording) letGoOfBytes(change.recording.sound.sha256);
    return made;
  },
};
