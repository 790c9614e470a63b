import type { Anchor } from '#core/anchor';
import type { Remark } from '#contract/remarks';
import { EMPTY_CONTENT, type RemarkContent } from '#contract/remarks';

/** A remark that is being written. It survives a reload; a file that was chosen does not. */
export interface Draft {
  anchor: Anchor;
  kind: string;
  content: RemarkContent;
}

export const emptyDraft = (anchor: Anchor, kind: string, content: Partial<RemarkContent> = {}): Draft => ({
  anchor,
  kind,
  content: { ...EMPTY_CONTENT, ...content },
});

export const draftOf = (remark: Remark): Draft => {
  const { name, text, link, reaction, suggestion, stamp, private: hidden, tags, criterion } = remark;
  return {
    anchor: remark.anchor,
    kind: remark.kind,
    content: { name, text, link, reaction, suggestion, stamp, private: hidden, tags, criterion },
  };
};

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
