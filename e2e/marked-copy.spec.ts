import { PDFDocument } from '@cantoo/pdf-lib';
import { readFile } from 'node:fs/promises';
import { expectMarksOnWords } from './marks.ts';
import { enter, expect, saved, TEACHER, test } from './school.ts';

test.use({ school: 'marked-copy' });

const PAGE = `<html><body><main><h1>Six hours on a mudflat</h1><p>I sat down at seven, with a flask and a notebook.</p>
<blockquote><p>Nothing happens here, my brother had said.</p></blockquote>
<table><caption>Birds that were seen</caption><tr><th>Curlew</th><td>seven in all</td></tr></table>
<figure><figcaption>A curlew at dawn, by the old kiln</figcaption></figure>
<ul><li>count them again</li></ul></main></body></html>`;
const SECOND = '# What came after\n\nThe tide turned, and `the birds` left.\n\n> They come back tomorrow.\n';
/** In letters of sizes that are no whole pixels, and in a file that is not the first. */
const PASSAGES = [
  ...['hours on', 'sat down', 'my brother had', 'that were', 'seven in', 'dawn, by the old', 'them again'],
  ...['came after', 'tide turned', 'come back'],
];

test('marks in the copy of a work of several files stand on their words, whatever these look like', async ({
  browser,
  server,
}) => {
  const student = await enter(browser, server, 'Ines Bettencourt');
  const work = student.locator('section.work', {
    has: student.getByRole('heading', { name: 'A place I know better than others' }),
  });
  await work.locator('input[type=file]').setInputFiles([
    { name: 'page.html', mimeType: 'text/html', buffer: Buffer.from(PAGE) },
    { name: 'after.md', mimeType: 'text/markdown', buffer: Buffer.from(SECOND) },
  ]);
  await work.getByRole('button', { name: 'Hand in', exact: true }).click();
  await expect(work.getByText('handed in.')).toBeVisible();

  const page = await enter(browser, server, TEACHER);
  await page.getByRole('link', { name: /^Ines Bettencourt ?A place/ }).click();
  await expect(page.getByRole('article')).toContainText('What came after');
  const id = new URL(page.url()).pathname.split('/').at(-1)!;
  const statuses = await page.evaluate(
    async ([submission, passages]) => {
      const { folio } = (await (await fetch(`/api/submissions/${submission}`)).json()) as { folio: { text: string } };
      const said = {
        ...{ name: '', tags: [], link: null, reaction: null, stamp: null, criterion: null, private: false },
        ...{ suggestion: null, recording: null, file: null, text: 'Look here.' },
      };
      const answers: number[] = [];
      for (const exact of passages) {
        const start = folio.text.indexOf(exact);
        const end = start + exact.length;
        const quote = {
          exact,
          prefix: folio.text.slice(Math.max(0, start - 20), start),
          suffix: folio.text.slice(end, end + 20),
        };
        const form = new FormData();
        form.set('body', JSON.stringify({ anchor: { type: 'passage', start, end, quote }, kind: 'repair', said }));
        const path = `/api/submissions/${submission}/remarks/${crypto.randomUUID()}`;
        answers.push((await fetch(path, { method: 'PUT', body: form })).status);
      }
      return answers;
    },
    [id, PASSAGES] as const,
  );
  expect(statuses).toEqual(PASSAGES.map(() => 200));
  await saved(page);

  await page.goto(`${server.address}/desk/${id}/as-student`);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Download as PDF' }).click(),
  ]);
  const file = await download.path();
  const pdf = await PDFDocument.load(await readFile(file), { updateMetadata: false });
  const marks = Array.from({ length: pdf.getPageCount() }, (_, at) => expectMarksOnWords(file, pdf, at));
  expect(marks.filter((count) => count > 0)).toEqual([7, 3]);
});
