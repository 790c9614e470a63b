import type { PDFDocumentProxy } from 'pdfjs-dist';

const loading = new Map<string, Promise<PDFDocumentProxy>>();

/** A PDF of the work, opened once however many of its pages are drawn. */
export function openPdf(url: string): Promise<PDFDocumentProxy> {
  let document = loading.get(url);
  if (!document) {
    // Only the works at hand stay open.
    for (const [other, one] of loading) {
      loading.delete(other);
      void one.then((before) => before.loadingTask.destroy()).catch(() => undefined);
    }
    document = open(url);
    loading.set(url, document);
    document.catch(() => loading.delete(url));
  }
  return document;
}

async function open(url: string): Promise<PDFDocumentProxy> {
  const [{ getDocument, GlobalWorkerOptions }, { default: workerUrl }] = await Promise.all([
    import('pdfjs-dist'),
    import('pdfjs-dist/build/pdf.worker.min.mjs?url'),
  ]);
  GlobalWorkerOptions.workerSrc = workerUrl;
  return getDocument({
    url,
    cMapUrl: '/pdf/cmaps/',
    standardFontDataUrl: '/pdf/standard_fonts/',
    wasmUrl: '/pdf/wasm/',
    iccUrl: '/pdf/iccs/',
    isEvalSupported: false,
    enableXfa: false,
    withCredentials: true,
  }).promise;
}
