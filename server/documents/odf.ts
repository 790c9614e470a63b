import type { Run } from '#core/folio';
import type { Element } from '@xmldom/xmldom';
import path from 'node:path/posix';
import { documentErrors, type DocumentPicture, type FileFormat } from './document.ts';
import { mathNode, mathText } from './math.ts';
import { odfTemplates } from './odf-table.ts';
import { odfStyles, withoutTracked } from './odf-style.ts';
import type { OdfContext } from './odf-text.ts';
import { packagePictures } from './package-pictures.ts';
import { standInPicture } from './stand-in-picture.ts';
import { unseenLabels } from './unseen.ts';
import { descendants, parseXml, path as follow, readableXml } from './xml.ts';
import { openPackage } from './zip.ts';

export interface OdfDocument {
  /** The element in the body that holds the text or the slides. */
  body: Element;
  styles: Element | undefined;
  title: string | undefined;
  context: OdfContext;
  pictures: DocumentPicture[];
  /** What else the document says, as names to stand at its end. */
  unseen: string[];
}

/**
 * Opens an OpenDocument file (ODF 1.3).
 * @throws DocumentError
 */
export function openOdf(
  bytes: Uint8Array,
  format: FileFormat,
  kind: 'text' | 'presentation' | 'spreadsheet',
  looks: boolean,
): OdfDocument {
  const files = openPackage(bytes, format);
  const part = (name: string): Element | undefined => {
    const text = files.text(name);
    return text === undefined ? undefined : (parseXml(text, format).documentElement ?? undefined);
  };
  /** What a document can be read without. Older programs name the grammar of equations before them. */
  const perhaps = (name: string): Element | undefined =>
    readableXml(files.text(name)?.replace(/<!DOCTYPE\s+math:math[^>[]*>/u, ''), format)?.documentElement ?? undefined;
  const content = part('content.xml');
  const body = follow(content, 'body', kind);
  if (!content || !body) throw documentErrors.broken(format);
  const styles = perhaps('styles.xml');
  const pictures: DocumentPicture[] = [];
  const picture = packagePictures(files, pictures);
  const context: OdfContext = {
    styles: odfStyles([content, styles]),
    looks,
    templates: odfTemplates([styles]),
    notes: [],
    headings: [],
    lists: new Map(),
    standIn: (label) => pictures.push(standInPicture(label)) - 1,
    picture: (href) => picture(path.normalize(href.replace(/^\.\//, ''))),
    equation: (href): Run | undefined => {
      const object = href ? perhaps(path.join(path.normalize(href.replace(/^\.\//, '')), 'content.xml')) : undefined;
      if (object?.localName !== 'math') return undefined;
      const math = mathNode(object);
      return { text: mathText(math), marks: [], math };
    },
  };
  const title = descendants(perhaps('meta.xml'), 'title')[0]?.textContent?.trim() || undefined;
  const unseen = unseenLabels({
    comments: descendants(body, 'annotation').length,
    changes: descendants(body, 'changed-region').length,
  });
  return { unseen, body: withoutTracked(body), styles, title, context, pictures };
}
