import type { Anchor } from '#core/anchor';
import type { Remark } from '#contract/remarks';
import { NO_WORDS, type SaidWords } from '#contract/said';

/** A remark that is being written. It survives a reload; a file that was chosen does not. */
export interface Draft {
  anchor: Anchor;
  kind: string;
  content: SaidWords;
}

export const emptyDraft = (anchor: Anchor, kind: string, content: Partial<SaidWords> = {}): Draft => ({
  anchor,
  kind,
  content: { ...NO_WORDS, ...content },
});

export const draftOf = (remark: Remark): Draft => {
  const { name, text, link, reaction, suggestion, stamp, ink, talk, private: hidden, tags, criterion } = remark;
  return {
    anchor: remark.anchor,
    kind: remark.kind,
    content: { name, text, link, reaction, suggestion, stamp, ink, talk, private: hidden, tags, criterion },
  };
};

/** Only what was changed, so that two teachers do not overwrite each other; undefined where nothing was. */
export function changeOf(remark: Remark, { content }: Draft): Partial<SaidWords> | undefined {
  const before = draftOf(remark).content;
  const changed = (Object.keys(content) as (keyof SaidWords)[]).filter(
    (name) => JSON.stringify(content[name]) !== JSON.stringify(before[name]),
  );
  return changed.length > 0 ? Object.fromEntries(changed.map((name) => [name, content[name]])) : undefined;
}

/** What is wrong with a link as it was typed; `https://` may be left out. */
export function linkOf(typed: string): string | null | undefined {
  const text = typed.trim();
  if (text === '') return null;
  const address = /^[a-z][a-z0-9+.-]*:/i.test(text) && !/^[^/]+:\d/.test(text) ? text : `https://${text}`;
  try {
    const url = new URL(address);
    return /^https?:$/.test(url.protocol) && url.hostname.includes('.') ? url.href : undefined;
  } catch {
    return undefined;
  }
}
