import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Recognised, RecognisedWord } from '../../contract/recognised.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { handInFile, startTestSchool, type TestSchool } from '../testing/school.ts';
import { recoverWorks } from './jobs.ts';
import { recognitionQueue } from './queue.ts';
import { linesIn, tesseract, type Recogniser } from './tesseract.ts';

const fixture = (name: string): Buffer => readFileSync(new URL(`./fixtures/${name}`, import.meta.url));
const signal = AbortSignal.timeout(80_000);
const textOf = (lines: readonly (readonly RecognisedWord[])[]): string =>
  lines.map((line) => line.map(({ text }) => text).join(' ')).join('\n');

// A page of invented text, printed, turned by half a degree and made grey: once as a scanned PDF, and once as a photograph that lies
// on its side and says so.
describe('words in a picture', () => {
  const WORDS = ['The ferry at low water', 'I asked', 'Nobody had measured the channel.'];

  it('of a scanned page are read, each at its place', async () => {
    const lines = await tesseract()!.page(fixture('scan.pdf'), 1, { language: 'en', signal });
    for (const words of WORDS) expect(textOf(lines)).toContain(words);
    const [title] = lines;
    const nobody = lines.flat().find(({ text }) => text === 'Nobody')!;
    expect(title![0]!.y).toBeLessThan(nobody.y);
    expect(title![0]!.x).toBeCloseTo(nobody.x, 1);
    for (const { x, y, width, height } of lines.flat()) {
      expect(Math.min(x, y)).toBeGreaterThan(0.05);
      expect(Math.max(x + width, y + height)).toBeLessThan(0.95);
    }
  });

  it('of a photograph are read as it stands upright', async () => {
    const lines = await tesseract()!.picture(fixture('photo.jpg'), { language: 'en', signal });
    for (const words of WORDS) expect(textOf(lines)).toContain(words);
    const page = await tesseract()!.page(fixture('scan.pdf'), 1, { language: 'en', signal });
    const [one, other] = [lines, page].map((all) => all.flat().find(({ text }) => text === 'channel.')!);
    expect([one!.x, one!.y].map((at) => at.toFixed(1))).toEqual([other!.x, other!.y].map((at) => at.toFixed(1)));
  });

  it('are those that Tesseract is fairly sure of, with places as shares of the page', () => {
    const table = [
      'level\tpage_num\tblock_num\tpar_num\tline_num\tword_num\tleft\ttop\twidth\theight\tconf\ttext',
      '1\t1\t0\t0\t0\t0\t0\t0\t200\t400\t-1\t',
      '5\t1\t1\t1\t1\t1\t20\t40\t50\t10\t96.1\tlow',
      '5\t1\t1\t1\t1\t2\t80\t40\t60\t10\t91\twater',
      '5\t1\t1\t1\t2\t1\t20\t60\t60\t10\t12\t~~;',
      '5\t1\t1\t2\t1\t1\t20\t80\t60\t10\t90\t ',
    ].join('\n');
    expect(linesIn(table)).toEqual([
      [
        { text: 'low', x: 0.1, y: 0.1, width: 0.25, height: 0.025 },
        { text: 'water', x: 0.4, y: 0.1, width: 0.3, height: 0.025 },
      ],
    ]);
    expect(linesIn('')).toEqual([]);
  });
});

describe.each(bodies)('scanned works, on $name', ({ open }) => {
  let test: TestDatabase;
  let school: TestSchool;
  beforeAll(async () => {
    test = await open();
    school = await startTestSchool(test.db);
  });
  afterAll(async () => {
    await school.stop();
    await test.remove();
  });
  const ask = async (who: 'teacher' | 'author' | 'stranger', work: string) =>
    school.as[who].send('GET', `/submissions/${work}/recognised`);
  const recognised = async (work: string): Promise<Recognised> => (await ask('author', work)).json as Recognised;

  it('have their words recognised after they are first opened, and stay unchanged', async () => {
    const work = await handInFile(school, 'scan.pdf', fixture('scan.pdf'));
    const before = await school.as.teacher.send('GET', `/submissions/${work}`);
    expect(await recognised(work)).toEqual({ state: 'waiting', leaves: [] });
    await expect.poll(() => recognised(work).then(({ state }) => state), { timeout: 60_000 }).toBe('done');
    const { leaves } = (await ask('teacher', work)).json as Recognised;
    expect(leaves.map(({ leaf }) => leaf)).toEqual([0]);
    expect(textOf(leaves[0]!.lines)).toContain('The ferry at low water');
    expect((await school.as.teacher.send('GET', `/submissions/${work}`)).json).toEqual(before.json);
    expect((await ask('stranger', work)).status).toBe(404);
  });

  it('with a text of their own are left alone', async () => {
    const work = await handInFile(school, 'shore.txt', Buffer.from('The shore is long.'));
    expect(await recognised(work)).toEqual({ state: 'done', leaves: [] });
  });

  it('that cannot be read hold up no others, and are given up after a second try', async () => {
    const bad = await handInFile(school, 'photo.jpg', fixture('photo.jpg'));
    let tries = 0;
    const broken: Recogniser = {
      page: () => Promise.reject(new Error('Broken')),
      picture: () => {
        tries++;
        return Promise.reject(new Error('Broken'));
      },
    };
    await test.db.query('insert into recognition_jobs (submission) values ($1)', [bad]);
    const queue = recognitionQueue({ db: test.db, recogniser: broken, staleAfter: 0 });
    await expect.poll(() => recognised(bad).then(({ state }) => state), { timeout: 20_000 }).toBe('failed');
    expect(tries).toBe(2);
    await queue.stop();
  });

  it('that were being read when a server ended are read again, but not for ever', async () => {
    const work = await handInFile(school, 'photo.jpg', fixture('photo.jpg'), 'classmate');
    const state = async () =>
      (await test.db.query('select state from recognition_jobs where submission = $1', [work]))[0]!.state;
    await test.db.query("insert into recognition_jobs (submission, state, attempts) values ($1, 'running', 1)", [work]);
    await recoverWorks(test.db, 600);
    expect(await state()).toBe('running');
    await recoverWorks(test.db, 0);
    expect(await state()).toBe('queued');
    await test.db.query("update recognition_jobs set state = 'running', attempts = 2 where submission = $1", [work]);
    await recoverWorks(test.db, 0);
    expect(await state()).toBe('failed');
  });
});
