import type { NewBanked } from '#contract/bank';
import type { Remark } from '#contract/remarks';

export type KeepDraft = Omit<NewBanked, 'recording' | 'from'>;

const MOST_WORDS = 7;

/** What a remark is called in the bank, until somebody says otherwise: how it begins. */
export function nameFor({ name, text, recording }: Pick<Remark, 'name' | 'text' | 'recording'>): string {
  if (name) return name;
  const said = (recording?.transcript?.text ?? '') || text;
  const [sentence = ''] = said.split(/(?<=[.!?…])\s/u);
  const words = sentence.split(/\s+/u).filter(Boolean);
  const short = words
    .slice(0, MOST_WORDS)
    .join(' ')
    .replace(/[.,;:]$/u, '');
  return (words.length > MOST_WORDS ? `${short} …` : short).slice(0, 80);
}

/** @param criterion the title of the remark's criterion */
export function keepDraftOf(remark: Remark, criterion: string): KeepDraft {
  const { text, link, reaction, suggestion, tags, kind } = remark;
  return {
    ...{ text, link, reaction, suggestion, tags, kind, criterion },
    name: nameFor(remark),
    language: null,
    description: '',
    gap: null,
  };
}
