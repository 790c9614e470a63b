import { PDFDocument, PDFName } from '@cantoo/pdf-lib';
import { strFromU8, strToU8, unzip, zip, type AsyncZippable, type Unzipped } from 'fflate';
import { withoutBookNames, withoutFrontMatterNames, withoutPageNames } from './pages.ts';
import { withoutPictureNames } from './pictures.ts';

/*
 * A file without what it says about who made it: for works that are marked without names. What can be read in the work itself stays.
 */

/** Its author cannot be taken out of a file that cannot be opened. */
export class CannotStrip extends Error {}

const PACKED = new Set(['docx', 'pptx', 'xlsx', 'odt', 'odp', 'ods', 'epub']);

/**
 * @param format as the reader of the work found it
 * @returns the same bytes where a file of this sort names nobody
 * @throws CannotStrip
 */
export async function withoutNames(bytes: Uint8Array, format: string): Promise<Uint8Array> {
  try {
    if (format === 'pdf') return await pdf(bytes);
    if (PACKED.has(format)) return await packed(bytes);
    if (format === 'html') return inText(bytes, withoutPageNames);
    if (format === 'markdown') return inText(bytes, withoutFrontMatterNames);
    return withoutPictureNames(bytes, format);
  } catch (error) {
    throw new CannotStrip(String(error));
  }
}

/** What is changed is written in ASCII, so that a text stays as it is whatever its letters are stored as. */
const inText = (bytes: Uint8Array, change: (text: string) => string): Uint8Array => {
  const text = strFromU8(bytes, true);
  const changed = change(text);
  return changed === text ? bytes : strToU8(changed, true);
};

/** Document information, metadata streams, private data of programs, and authors of notes: ISO 32000-2, 14.3, 14.5, 12.5.6.2. */
async function pdf(bytes: Uint8Array): Promise<Uint8Array> {
  const document = await PDFDocument.load(bytes, { updateMetadata: false });
  const { context, catalog } = document;
  delete context.trailerInfo.Info;
  delete context.trailerInfo.ID;
  for (const name of ['Metadata', 'PieceInfo']) catalog.delete(PDFName.of(name));
  for (const page of document.getPages()) {
    for (const name of ['Metadata', 'PieceInfo']) page.node.delete(PDFName.of(name));
    for (const annotation of page.node.Annots()?.asArray() ?? []) {
      const found = context.lookup(annotation);
      if (found && 'delete' in found) (found as { delete(name: PDFName): void }).delete(PDFName.of('T'));
    }
  }
  dropUnreachable(document);
  return document.save({ updateFieldAppearances: false });
}

/** What nothing refers to any more would still be written. */
function dropUnreachable({ context }: PDFDocument): void {
  const seen = new Set<string>();
  const open: unknown[] = [context.trailerInfo.Root, context.trailerInfo.Encrypt];
  while (open.length > 0) {
    const one = open.pop() as { tag?: string; entries?: () => unknown; asArray?: () => unknown[]; dict?: unknown };
    if (!one || typeof one !== 'object') continue;
    if (typeof one.tag === 'string' && 'objectNumber' in one) {
      if (seen.has(one.tag)) continue;
      seen.add(one.tag);
      open.push(context.lookup(one as never));
    } else if (one.asArray) open.push(...one.asArray());
    else if (one.entries) for (const [, value] of one.entries() as Iterable<[unknown, unknown]>) open.push(value);
    else if (one.dict) open.push(one.dict);
  }
  for (const [reference] of context.enumerateIndirectObjects()) if (!seen.has(reference.tag)) context.delete(reference);
}

const CORE = `<?xml version="1.0" encoding="UTF-8" standalone="yes"?>
<cp:coreProperties xmlns:cp="http://schemas.openxmlformats.org/package/2006/metadata/core-properties"/>`;
const APP = `<?xml version="1.0" encoding="UTF-8" standalone="yes"?>
<Properties xmlns="http://schemas.openxmlformats.org/officeDocument/2006/extended-properties"/>`;
const CUSTOM = `<?xml version="1.0" encoding="UTF-8" standalone="yes"?>
<Properties xmlns="http://schemas.openxmlformats.org/officeDocument/2006/custom-properties"/>`;
const META = `<?xml version="1.0" encoding="UTF-8"?>
<office:document-meta xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" office:version="1.2"/>`;

/** Parts that are about the file (ECMA-376, part 2, section 11; OpenDocument 1.3, part 3, section 4.3). */
const EMPTIED: Record<string, string> = {
  ...{ 'docProps/core.xml': CORE, 'docProps/app.xml': APP, 'docProps/custom.xml': CUSTOM, 'meta.xml': META },
};

/** Authors of comments and changes: ECMA-376, part 1, 17.13, 19.4, 18.7; and what office programs write beside. */
const ATTRIBUTES =
  /(\s(?:w:author|w:initials|w15:author|w15:userId|w15:providerId|author|initials|userId|providerId|displayName|userName|lastEdited|lastModifiedBy)=)"[^"]*"/g;
const ELEMENTS =
  /(<(?:dc:creator|meta:creator-initials|loext:sender-initials|author|cp:lastModifiedBy|dc:publisher)>)[^<]*/g;
/** Where a template lies on somebody's machine. */
const PLACES = /(\s(?:Target|url|xlink:href)=)"file:[^"]*"/g;
/** Only parts that can hold an author: in the others `author` may be somebody's own word. */
const AUTHORED =
  /(?:^|\/)(?:document\d*|header\d+|footer\d+|footnotes|endnotes|comments\w*|people|settings|commentAuthors|authors|persons?\d*|threadedComment\w*|workbook|comment\d+|modernComment\w*|content|styles)\.xml$|\.rels$/;

/** Lists of people, whose names are called just that. */
const PEOPLE = /(?:^|\/)(?:people|commentAuthors|authors|persons?\d*)\.xml$/;
const NAMED = /(\s(?:name|id)=)"([^"]*)"/g;
/** Ids that others refer to by stay. */
const isId = (value: string): boolean => /^[\da-fA-F{}-]*$/.test(value);

async function packed(bytes: Uint8Array): Promise<Uint8Array> {
  const entries = await new Promise<Unzipped>((resolve, reject) =>
    unzip(bytes, (error, found) => (error ? reject(error) : resolve(found))),
  );
  const out: AsyncZippable = {};
  for (const [name, part] of Object.entries(entries)) {
    const emptied = EMPTIED[name];
    const kept =
      emptied !== undefined ? strToU8(emptied) : AUTHORED.test(name) ? unnamed(name, part) : notOffice(name, part);
    // The first part of an OpenDocument file is not packed (OpenDocument 1.3, part 2, section 3.3).
    out[name] = [kept, { level: name === 'mimetype' ? 0 : 6, mtime: '2000-01-01' }];
  }
  return new Promise((resolve, reject) => zip(out, (error, packed) => (error ? reject(error) : resolve(packed))));
}

function unnamed(name: string, part: Uint8Array): Uint8Array {
  const text = strFromU8(part).replace(ATTRIBUTES, '$1""').replace(ELEMENTS, '$1').replace(PLACES, '$1"file:///"');
  return strToU8(
    PEOPLE.test(name)
      ? text.replace(NAMED, (all, head: string, value: string) => (isId(value) ? all : `${head}""`))
      : text,
  );
}

/** Pages of a book, and pictures. */
const notOffice = (name: string, part: Uint8Array): Uint8Array => {
  if (/\.(?:opf|ncx|x?html?)$/iu.test(name)) return strToU8(withoutBookNames(name.toLowerCase(), strFromU8(part)));
  const format = /\.(jpe?g|png|webp)$/i.exec(name)?.[1]?.toLowerCase();
  return format ? withoutPictureNames(part, format === 'jpg' ? 'jpeg' : format) : part;
};
