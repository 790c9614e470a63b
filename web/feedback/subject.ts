import type { Subject } from '../outbox/subjects.ts';
import { letGoOfBytes } from '../player/local-media.ts';
import { firstChange } from './first-version.ts';
import { changedOver, compared, readChange, sendChange, touchedBy, type Change } from './changes/index.ts';

/** How changes of feedback are read back from the browser's storage and sent. */
export const feedbackSubject: Subject<Change> = {
  read(kept, writtenIn) {
    const change = readChange(writtenIn === 1 ? firstChange(kept) : kept);
    return { change, touches: touchedBy(change) };
  },
  async send(submission, change) {
    const update = await sendChange(submission, change);
    // From now on they can be had from the server.
    soundsIn(change).forEach(({ sha256 }) => letGoOfBytes(sha256));
    return update;
  },
  compare: compared,
  over: changedOver,
};

function soundsIn(change: Change): { sha256: string }[] {
  switch (change.type) {
    case 'make remark':
      return [change.recording?.sound, change.file].filter((one) => one !== null && one !== undefined);
    case 'drop banked':
      return change.greeted ? [change.greeted.sound] : [];
    case 'answer':
      return change.recording ? [change.recording.sound] : [];
    case 'replace sound':
      return [change.sound];
    default:
      return [];
  }
}
