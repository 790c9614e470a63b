import type { Subject } from '../outbox/subjects.ts';
import { letGoOfBytes } from '../player/local-media.ts';
import { BankChange, sendBankChange, soundOfChange, touchedInBank } from './bank-changes.ts';

/** How changes of the bank are read back from the browser's storage and sent. */
export const bankSubject: Subject<BankChange> = {
  read(kept) {
    const change = BankChange.parse(kept);
    return { change, touches: touchedInBank(change) };
  },
  async send(_, change) {
    const answer = await sendBankChange(change);
    const sound = soundOfChange(change);
    if (sound) letGoOfBytes(sound.sha256);
    return answer;
  },
};
