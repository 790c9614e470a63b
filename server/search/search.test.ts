import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { searchable } from '#core/transcript';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { handIn, sayRemark, startTestSchool, type TestSchool } from '../testing/school.ts';
import { selectHits } from './queries.ts';

interface Hits {
  hits: {
    submission: string;
    student: string;
    assignment: string;
    remark: { id: string; recording: { edit: unknown } | null };
  }[];
  more: boolean;
}

describe.each(bodies)('search on $name', ({ open }) => {
  let test: TestDatabase;
  let school: TestSchool;
  let submission: string;
  const said: Record<string, string> = {};

  const find = async (who: keyof TestSchool['as'], words: string, more: object = {}): Promise<string[]> => {
    const { status, json } = await school.as[who].send('POST', '/search', { body: { words, ...more } });
    expect(status).toBe(200);
    return (json as Hits).hits.map(({ remark }) => Object.keys(said).find((name) => said[name] === remark.id)!);
  };
  const mend = (remark: string, text: string) =>
    school.as.teacher.send('PUT', `/recordings/${remark}/transcript`, { body: { language: 'en', text } });

  beforeAll(async () => {
    test = await open();
    school = await startTestSchool(test.db);
    submission = await handIn(school);
    for (const name of ['reason', 'boats', 'secret']) said[name] = await sayRemark(school, submission);
    await mend(said.reason!, 'Take these four words out; the reason isn’t obvious.');
    await mend(said.boats!, 'Four boats, and not one word more about Élodie HADŽIĆ.');
    await mend(said.secret!, 'Between us: copied words, 100% of them.');
    await school.as.teacher.send('PATCH', `/remarks/${said.secret!}`, { body: { private: true } });
    await school.as.teacher.send('PUT', `/recordings/${said.boats!}/translations`, {
      body: { language: 'ar', text: 'قرأت هذا بسرور' },
    });
    said.written = randomUUID();
    await school.as.teacher.send('PUT', `/submissions/${submission}/remarks/${said.written}`, {
      body: {
        anchor: { type: 'whole' },
        kind: 'next',
        said: {
          ...{ name: 'Salt marsh', text: 'See the figure below.', link: null, reaction: null, suggestion: null },
          ...{ stamp: null, private: false, tags: ['sources'], criterion: null },
        },
      },
    });
  });
  afterAll(async () => {
    await school.stop();
    await test.remove();
  });

  it('finds remarks by every word in them: said, translated, written, named or tagged', async () => {
    expect(await find('teacher', 'four word')).toEqual(['reason', 'boats']);
    expect(await find('teacher', 'four words')).toEqual(['reason']);
    expect(await find('teacher', 'one four')).toEqual(['boats']);
    expect(await find('teacher', 'word four')).toEqual(['boats']);
    expect(await find('teacher', 'word ')).toEqual(['boats']);
    expect(await find('teacher', 'بسرور')).toEqual(['boats']);
    expect(await find('teacher', 'marsh figure')).toEqual(['written']);
    expect(await find('teacher', 'SOURCES')).toEqual(['written']);
    expect(await find('teacher', 'limpets')).toEqual([]);
  });

  it('without capitals, accents, and the sort of apostrophe; signs are taken as they are', async () => {
    expect(await find('teacher', "isn't")).toEqual(['reason']);
    expect(await find('teacher', 'elodie hadzic')).toEqual(['boats']);
    expect(await find('teacher', '100%')).toEqual(['secret']);
    for (const nothing of ['ords', 'w.rds', '_ords', 'w?o', 'w|x', 'obvious)'])
      expect(await find('teacher', `${nothing} four`)).toEqual(nothing.startsWith('obv') ? ['reason'] : []);
    expect(await find('teacher', 'not-a-word')).toEqual([]);
    expect(await find('teacher', 'رأت')).toEqual([]);
    expect(await find('teacher', '“four, words!”')).toEqual(['reason']);
    expect(await find('teacher', "'; drop table & | ! :* <-> (four words")).toEqual([]);
    expect(await find('teacher', `four ${'x'.repeat(190)}`)).toEqual([]);
    expect(await find('teacher', '  “ ” ')).toEqual([]);
  });

  it('in scripts that put no spaces between words, wherever they stand', async () => {
    await school.as.teacher.send('PUT', `/recordings/${said.boats!}/translations`, {
      body: { language: 'ja', text: '潮が引いたあとの砂浜を読んで。' },
    });
    for (const words of ['引いた', '砂浜 ', '潮が引', 'あとの砂浜を'])
      expect(await find('teacher', words)).toEqual(['boats']);
    for (const words of ['引潮', '浜砂']) expect(await find('teacher', words)).toEqual([]);
  });

  it('goes on finding what is said now, not what was said before', async () => {
    await mend(said.reason!, 'Take these three words out.');
    expect(await find('teacher', 'isn')).toEqual([]);
    expect(await find('teacher', 'three')).toEqual(['reason']);
    await mend(said.reason!, 'Take these four words out; the reason isn’t obvious.');
    expect((await mend(said.boats!, 'word '.repeat(4000))).status).toBe(200);
    expect(await find('teacher', 'boats')).toEqual([]);
    await mend(said.boats!, 'Four boats, and not one word more about Élodie HADŽIĆ.');
  });

  it('among very many, the newest first, those with the words in their order before them', async () => {
    await test.db.query(
      `insert into remarks (id, submission, author, kind, anchor, content, made_at)
       select gen_random_uuid(), $1, $2, 'next', '{"type": "whole"}',
         content || jsonb_build_object('name', '', 'text', case when n = 7 then 'heron bank' else 'bank, then heron ' || n end),
         timestamptz '2020-01-01' + n * interval '1 hour'
       from remarks, generate_series(1, 400) n where id = $3`,
      [submission, school.ids.teacher, said.written],
    );
    const hits = await selectHits(test.db, school.ids.teacher, { words: 'heron bank', own: true, limit: 3 });
    expect(hits.map(({ remark }) => remark.text)).toEqual([
      'heron bank',
      'bank, then heron 400',
      'bank, then heron 399',
    ]);
    expect(await find('classmate', 'heron')).toEqual([]);
    await test.db.query("delete from remarks where made_at < '2020-02-01'");
    expect(await find('teacher', 'heron')).toEqual([]);
  });

  it('folds as core does, so that what is found can be shown', async () => {
    const text = 'ÉLÉPHANT Straße İstanbul ΣΊΣΥΦΟΣ Ünïcödé don’t قَرَأَ Việt Ngữ';
    const [row] = await test.db.query('select folded($1) as folded', [text]);
    // A sigma at the end of a word is its own small letter.
    expect(String(row!.folded).replaceAll('ς', 'σ')).toBe(searchable(text).replaceAll('ς', 'σ'));
  });

  it('puts the words in their order first, then the newest, and says whether there are more', async () => {
    expect(await find('teacher', 'word')).toEqual(['secret', 'boats', 'reason']);
    expect(await find('teacher', 'these four')).toEqual(['reason']);
    expect(await selectHits(test.db, school.ids.teacher, { words: 'word', own: false, limit: 2 })).toHaveLength(2);
  });

  it('shows nobody what they may not read', async () => {
    expect((await school.as.nobody.send('POST', '/search', { body: { words: 'four' } })).status).toBe(401);
    for (const who of ['colleague', 'stranger', 'classmate', 'author'] as const)
      expect(await find(who, 'words')).toEqual([]);
    await school.as.teacher.send('PUT', `/submissions/${submission}/returned`, { body: { returned: true } });
    expect(await find('author', 'words')).toEqual(['reason']);
    for (const who of ['colleague', 'stranger', 'classmate'] as const) expect(await find(who, 'words')).toEqual([]);
    await school.as.teacher.send('PUT', `/submissions/${submission}/returned`, { body: { returned: false } });
    expect(await find('author', 'words')).toEqual([]);
  });

  it('leaves out what was put aside, and on wish what others said', async () => {
    await school.as.teacher.send('PUT', `/remarks/${said.written!}/aside`, { body: { aside: true } });
    expect(await find('teacher', 'marsh')).toEqual([]);
    await school.as.teacher.send('PUT', `/remarks/${said.written!}/aside`, { body: { aside: false } });
    expect(await find('teacher', 'marsh', { own: true })).toEqual(['written']);
    await test.db.query('update remarks set author = $1 where id = $2', [school.ids.colleague, said.written]);
    expect(await find('teacher', 'marsh', { own: true })).toEqual([]);
    expect(await find('teacher', 'marsh')).toEqual(['written']);
  });
});
