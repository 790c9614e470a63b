import type { Folio } from '#core/folio';

export interface DocumentPicture {
  mediaType: string;
  bytes: Uint8Array;
}

/** A document as read: its folio, and the pictures that the folio counts. */
export interface ReadResult {
  folio: Folio;
  pictures: DocumentPicture[];
}

/** A document that cannot be read. The message is a sentence for the person who handed it in. */
export class DocumentError extends Error {
  constructor(message: string) {
    super(message);
    this.name = 'DocumentError';
  }
}

export const documentErrors = {
  empty: () => new DocumentError('This file is empty (0 bytes). Save your work again and hand in the new file.'),
  unknown: () =>
    new DocumentError(
      'This file is not a Word document (.docx), whatever its name says. Save your work as .docx and hand that in.',
    ),
  oldWord: () =>
    new DocumentError(
      'This is a document of an old Word version (.doc), or one with a password. Save it as .docx without a password and hand that in.',
    ),
  broken: () =>
    new DocumentError(
      'This Word document is damaged: it cannot be opened. Open it in your word processor, save it again and hand in the new file.',
    ),
  tooLarge: () =>
    new DocumentError('This document unpacks to more than can be read. Make its pictures smaller and try again.'),
  tooSlow: () =>
    new DocumentError('This document took too long to read. Save it again as .docx, or split it, and try again.'),
  withoutText: () => new DocumentError('There is no text in this document. Check that you chose the right file.'),
};

export type ReadDocument = (bytes: Uint8Array, fileName: string) => Promise<ReadResult>;
