import { locatePassage, type Offsets } from '#core/anchor';
import { countWords } from '#core/folio';
import type { Remark } from '#contract/remarks';
import type { Editor } from '@tiptap/core';
import type { Node } from '@tiptap/pm/model';

/** Where each UTF-16 unit of a text stands in the document; between blocks stands a line break of no place. */
export interface PlacedText {
  text: string;
  /** The position before each unit. */
  places: number[];
}

/** The words of a document as the work has them, and where they stand in it. */
export function placedText(document: Node): PlacedText {
  let text = '';
  const places: number[] = [];
  document.descendants((node, position) => {
    if (node.isTextblock && text !== '') {
      text += '\n';
      places.push(position);
    }
    if (!node.isText) return;
    for (let unit = 0; unit < node.text!.length; unit++) places.push(position + unit);
    text += node.text!;
  });
  return { text, places };
}

/** Words that are so many are hardly said twice by chance. */
const TELLING_WORDS = 3;
/** UTF-16 units of their surroundings by which fewer words are known. */
const TELLING_UNITS = 4;

interface Quote {
  exact: string;
  prefix: string;
  suffix: string;
}

/** Where the words stand by now; undefined where they are gone, or only such as they stand somewhere else. */
function placeOf(text: string, { exact, prefix, suffix }: Quote): Offsets | undefined {
  const place = locatePassage(text, { exact, prefix, suffix });
  if (!place || countWords(exact) >= TELLING_WORDS) return place;
  const before = prefix.slice(-TELLING_UNITS);
  const after = suffix.slice(0, TELLING_UNITS);
  const known = text.slice(0, place.start).endsWith(before) || text.slice(place.end).startsWith(after);
  return known ? place : undefined;
}

/** Puts suggested words in the place of those they are about, wherever these stand in the text by now. */
export const putSuggestion =
  (editor: Editor) =>
  ({ anchor, suggestion }: Pick<Remark, 'anchor' | 'suggestion'>): boolean => {
    if (anchor.type !== 'passage' || suggestion === null) return false;
    const { text, places } = placedText(editor.state.doc);
    const place = placeOf(text, anchor.quote);
    if (!place) return false;
    const from = places[place.start]!;
    const to = places[place.end - 1]! + 1;
    return editor
      .chain()
      .focus()
      .command(({ tr }) => {
        // As the words stood that it replaces: bold stays bold.
        const marks = tr.doc.resolve(from + 1).marks();
        if (suggestion === '') tr.delete(from, to);
        else tr.replaceWith(from, to, editor.schema.text(suggestion, marks));
        return true;
      })
      .run();
  };
