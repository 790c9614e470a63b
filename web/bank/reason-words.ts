import type { Reason } from '#contract/bank';
import { counted } from '../wording/format.ts';

/** Why a banked remark stands where it stands, as a teacher would say it. */
export function reasonWords(reason: Reason): string {
  switch (reason.why) {
    case 'like':
      return reason.uses === 1 ? 'you said it about a passage like this' : 'you said it about passages like this';
    case 'label':
      return `“${reason.label}”: this passage ${reason.says}`;
    case 'kind':
      return 'the kind you chose';
    case 'criterion':
      return 'the criterion you chose';
    case 'often':
      return `said ${counted(reason.uses, 'time')}`;
  }
}
