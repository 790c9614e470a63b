import { suggestFromBank } from '#contract/bank';
import { call } from '../../session/api.ts';

const AFTER_MILLISECONDS = 2500;
const NOTHING = { before: '', passage: '', after: '', kind: null, criterion: null };

/** The passage that something is said about is set in it. */
const PASSAGE_FONT = "italic 14px 'Literata Variable'";

let warmed = false;

/** Gets the bank ready once the desk is: what is opened for the first time opens slowly, here and on the server. */
export function warmBank(submission: string): void {
  if (warmed) return;
  warmed = true;
  setTimeout(() => {
    void import('./BankPanel.vue').catch(() => undefined);
    void document.fonts.load(PASSAGE_FONT).catch(() => undefined);
    void call(suggestFromBank, { params: { submission }, body: NOTHING }).catch(() => undefined);
  }, AFTER_MILLISECONDS);
}
