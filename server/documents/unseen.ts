import type { TextLeaf } from '#core/folio';
import type { DocumentPicture } from './document.ts';
import { standInPicture } from './stand-in-picture.ts';

/** How it is said that a document has comments and tracked changes: as names of what stands in their place at its end. */
export const unseenLabels = ({ comments, changes }: { comments: number; changes: number }): string[] => [
  ...(changes > 0 ? [`Tracked changes in this file: ${changes}, read as accepted`] : []),
  ...(comments > 0 ? [`Comments in this file: ${comments}`] : []),
];

/** Behind the slides of a presentation, which have no end to stand at. */
export const unseenLeaves = (labels: readonly string[], pictures: DocumentPicture[]): TextLeaf[] =>
  labels.map((label) => ({
    kind: 'text',
    label: 'Not shown',
    blocks: [{ type: 'picture', picture: pictures.push(standInPicture(label)) - 1, alt: label }],
  }));
