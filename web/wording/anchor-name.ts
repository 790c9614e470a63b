import type { Anchor } from '#core/anchor';
import { clock } from '#core/audio';
import { columnName, type Folio } from '#core/folio';

/** What a remark is about, in words: the passage in quotation marks, or where it is. */
export function anchorName({ leaves, files }: Pick<Folio, 'leaves' | 'files'>, anchor: Anchor): string {
  const label = (index: number): string => {
    const leaf = leaves[index];
    if (!leaf) return 'the work';
    const name = leaf.label.charAt(0).toLowerCase() + leaf.label.slice(1);
    const shown = leaf.kind === 'sheet' || leaf.kind === 'page' || leaf.kind === 'slide' ? name : `the ${name}`;
    return files.length > 1 ? `${shown} of ${files[leaf.file]!.name}` : shown;
  };
  switch (anchor.type) {
    case 'whole':
      return 'the whole work';
    case 'passage':
      return `“${anchor.quote.exact}”`;
    case 'region':
      return `a part of ${label(anchor.leaf)}`;
    case 'span':
      return `${clock(anchor.start)} to ${clock(anchor.end)} of ${label(anchor.leaf)}`;
    case 'cells': {
      const [first, last] = [
        `${columnName(anchor.left)}${anchor.top + 1}`,
        `${columnName(anchor.right)}${anchor.bottom + 1}`,
      ];
      return first === last
        ? `cell ${first} of ${label(anchor.leaf)}`
        : `cells ${first} to ${last} of ${label(anchor.leaf)}`;
    }
    case 'answer': {
      const leaf = leaves.find((one) => one.kind === 'answer' && one.question === anchor.question);
      return leaf ? `the answer to ${leaf.label.charAt(0).toLowerCase()}${leaf.label.slice(1)}` : 'an answer';
    }
  }
}
