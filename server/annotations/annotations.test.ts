import jsonld from 'jsonld';
import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { AnnotationPage } from '../../contract/annotation.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { handIn, sayRemark, startTestSchool, voice, type TestSchool } from '../testing/school.ts';
import { exportAnnotations } from './export.ts';
import { importAnnotations } from './import.ts';

/** The context of the W3C model (https://www.w3.org/TR/annotation-vocab/, appendix A), written down from memory. */
const W3C_CONTEXT = JSON.parse(
  readFileSync(new URL('../testing/anno-context.json', import.meta.url), 'utf8'),
) as object;

const loader = (url: string) => {
  if (url !== 'http://www.w3.org/ns/anno.jsonld') throw new Error(`Nothing else may be loaded: ${url}`);
  return Promise.resolve({ contextUrl: undefined, documentUrl: url, document: W3C_CONTEXT });
};

const OA = 'http://www.w3.org/ns/oa#';

let test: TestDatabase;
let school: TestSchool;
let submission: string;
let page: AnnotationPage;
const nothing = (): Promise<undefined> => Promise.resolve(undefined);

beforeAll(async () => {
  test = await bodies[0]!.open();
  school = await startTestSchool(test.db);
  submission = await handIn(school);
  await sayRemark(school, submission, 'The three lines are therefore a calendar');
  const remark = await sayRemark(school, submission);
  await school.as.teacher.send('PUT', `/recordings/${remark}/transcript`, {
    body: { language: 'en', text: 'Take these four words out.' },
  });
  page = (await exportAnnotations(test.db, submission))!;
});
afterAll(async () => {
  await school.stop();
  await test.remove();
});

describe('remarks as W3C Web Annotations', () => {
  it('are what the schema says, in reading order', () => {
    expect(AnnotationPage.parse(JSON.parse(JSON.stringify(page)))).toEqual(page);
    expect(page.items.map(({ target }) => [target.selector].flat().at(-1)!.exact)).toEqual([
      'The reason is obvious.',
      'The three lines are therefore a calendar',
    ]);
  });

  it('are JSON-LD that a general library expands to the terms of the W3C vocabulary', async () => {
    const [expanded] = (await jsonld.expand(page as never, { documentLoader: loader as never })) as Record<
      string,
      unknown
    >[];
    const text = JSON.stringify(expanded);
    for (const term of [
      'Annotation',
      'hasBody',
      'hasTarget',
      'hasSource',
      'hasSelector',
      'TextPositionSelector',
      'TextQuoteSelector',
      'exact',
      'prefix',
      'suffix',
      'start',
      'end',
      'motivatedBy',
      'commenting',
      'editing',
      'hasPurpose',
      'describing',
      'tagging',
    ])
      expect(text, term).toContain(`"${OA}${term}"`);
    expect(text).toContain('http://purl.org/dc/dcmitype/Sound');
    expect(text).toContain('"http://purl.org/dc/elements/1.1/format":[{"@value":"audio/ogg"}]');
    expect(text).toContain('urn:vivid-margin:terms#seconds');
    // Whatever a context does not know is dropped while expanding: nothing of ours may be.
    const compacted = await jsonld.compact(expanded!, page['@context'], { documentLoader: loader });
    const again = JSON.stringify(compacted);
    for (const value of ['Take these four words out.', page.items[0]!.id, 'The reason is obvious.'])
      expect(again).toContain(value);
    const count = (value: unknown): number =>
      typeof value === 'object' && value !== null
        ? Object.values(value).reduce((sum: number, inner) => sum + count(inner), 0)
        : 1;
    expect(count(compacted.items)).toBe(count(page.items));
  });

  it('are read back into an empty work as they were, and once only', async () => {
    await test.db.query('delete from remarks');
    expect(await importAnnotations(test.db, submission, page, nothing)).toEqual({ made: 2, known: 0 });
    expect(await exportAnnotations(test.db, submission)).toEqual(page);
    expect(await importAnnotations(test.db, submission, page, nothing)).toEqual({ made: 0, known: 2 });
  });

  it('are read back into the next version under new identifiers, with the recordings that come along', async () => {
    const next = await handIn(school);
    await test.db.query('delete from media_chunks');
    await test.db.query('delete from remarks');
    await test.db.query('delete from recordings');
    await test.db.query("delete from media m where m.media_type = 'audio/ogg'");
    await expect(importAnnotations(test.db, next, page, nothing)).rejects.toThrow('is not here');
    await expect(importAnnotations(test.db, next, page, () => Promise.resolve(Buffer.from('x')))).rejects.toThrow();
    expect((await exportAnnotations(test.db, next))!.items).toEqual([]);
    expect(await importAnnotations(test.db, next, page, voice)).toEqual({ made: 2, known: 0 });
    expect((await exportAnnotations(test.db, next))!.items.map(({ body }) => body)).toEqual(
      page.items.map(({ body }) => body),
    );
  });

  it('are refused whole when one is about what is not there, by nobody of the course, or has no recording', async () => {
    const before = await exportAnnotations(test.db, submission);
    const [first, second] = structuredClone(page.items) as [
      AnnotationPage['items'][number],
      AnnotationPage['items'][number],
    ];
    const elsewhere = {
      ...second,
      target: { ...second.target, selector: { type: 'TextQuoteSelector', exact: 'never written' } },
    };
    const stranger = { ...second, creator: { ...second.creator, id: `urn:uuid:${school.ids.colleague}` } };
    const silent = { ...second, body: second.body.filter((body) => body.type !== 'Audio') };
    for (const [wrong, why] of [
      [elsewhere, 'not in this work'],
      [stranger, 'teaches no course'],
      [silent, 'no recording'],
    ] as const)
      await expect(importAnnotations(test.db, submission, { ...page, items: [first, wrong] }, nothing)).rejects.toThrow(
        why,
      );
    expect(await exportAnnotations(test.db, submission)).toEqual(before);
    await expect(importAnnotations(test.db, school.ids.author, page, nothing)).rejects.toThrow('There is no work');
  });
});
