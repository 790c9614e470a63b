import { defaultTreeAdapter as tree, type DefaultTreeAdapterTypes } from 'parse5';
import path from 'node:path/posix';
import type { DocumentPicture } from './document.ts';
import { standInPicture } from './stand-in-picture.ts';

type Element = DefaultTreeAdapterTypes.Element;

/** Smaller ones are signs of a page, no pictures of a work: in CSS pixels. */
const SIGN = 32;

const attributeOf = (element: Element, name: string): string | undefined =>
  element.attrs.find((candidate) => candidate.name === name)?.value;

/**
 * Numbers the pictures of a page as `picture:N`. One that is not there leaves its name, unless it is decoration.
 * @param find the number of the picture that a source stands for
 */
export function takePictures(
  node: DefaultTreeAdapterTypes.ParentNode,
  pictures: DocumentPicture[],
  find: (source: string) => number | undefined,
): void {
  for (const child of node.childNodes.filter(tree.isElementNode)) {
    const source = child.attrs.find(({ name }) => name === 'src');
    if (child.tagName === 'img' && source) {
      const label = missingLabel(child, source.value);
      const number = find(source.value) ?? (label === undefined ? undefined : pictures.push(standInPicture(label)) - 1);
      source.value = number === undefined ? '' : `picture:${number}`;
    }
    takePictures(child, pictures, find);
  }
}

/** An empty text in its place means that a picture says nothing (HTML Standard, section 4.8.4.4). */
function missingLabel(image: Element, source: string): string | undefined {
  const text = attributeOf(image, 'alt');
  const sizes = ['width', 'height'].map((name) => Number(attributeOf(image, name) ?? NaN));
  if (text === '' || sizes.some((size) => size <= SIGN)) return undefined;
  const name = source.startsWith('data:') ? '' : path.basename(source.split(/[?#]/u)[0]!);
  return ['Missing picture', text?.trim() || name].filter(Boolean).join(': ');
}
