import { wordChanges } from '#core/anchor';
import type { DrawnEdit, DrawnMark } from './folio-context.ts';

/** A suggestion in the parts in which it is drawn: what is struck, and what is put in behind it, or before the first word. */
export function drawnEdits({ id, kind, anchor, suggestion }: DrawnMark): DrawnEdit[] {
  if (anchor.type !== 'passage' || suggestion === null || suggestion === undefined) return [];
  const edits: DrawnEdit[] = [];
  let at = anchor.start;
  const add = (edit: Omit<DrawnEdit, 'id' | 'kind'>): void => {
    edits.push({ id: `${id} ${edits.length}`, kind, ...edit });
  };
  for (const { type, text } of wordChanges(anchor.quote.exact, suggestion)) {
    const last = edits.at(-1);
    if (type === 'struck') add({ start: at, end: at + text.length, struck: true });
    else if (type === 'new' && last?.struck && last.end === at) last.after = text;
    else if (type === 'new' && at > anchor.start) add({ start: at - 1, end: at, struck: false, after: text });
    else if (type === 'new') add({ start: at, end: at + 1, struck: false, before: text });
    if (type !== 'new') at += text.length;
  }
  return edits;
}
