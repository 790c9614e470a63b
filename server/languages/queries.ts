import { z } from 'zod';
import { Id, LanguageTag } from '../../contract/basics.ts';
import { select, selectOne, type Queries } from '../db/database.ts';

/** The language that a teacher probably speaks on a work: their own, or that of the course. */
export async function selectSpokenLanguage(db: Queries, person: string, submission: string): Promise<string> {
  const row = await selectOne(
    db,
    z.object({ language: LanguageTag }),
    `select coalesce(p.spoken_language, c.spoken_language) as language
     from people p, submissions s join assignments a on a.id = s.assignment join courses c on c.id = a.course
     where p.id = $1 and s.id = $2`,
    [person, submission],
  );
  return row?.language ?? 'en';
}

/** What a work is written in: what its folio says, or what its course speaks. */
export async function selectWorkLanguage(db: Queries, submission: string): Promise<string> {
  const row = await selectOne(
    db,
    z.object({ language: LanguageTag.catch('en') }),
    `select coalesce(s.folio ->> 'language', c.spoken_language) as language
     from submissions s join assignments a on a.id = s.assignment join courses c on c.id = a.course where s.id = $1`,
    [submission],
  );
  return row?.language ?? 'en';
}

/** What a person says that they speak; null where they follow the course. */
export async function selectOwnLanguage(db: Queries, person: string): Promise<string | null> {
  const row = await selectOne(
    db,
    z.object({ language: LanguageTag.nullable() }),
    'select spoken_language as language from people where id = $1',
    [person],
  );
  return row?.language ?? null;
}

export const selectCourseLanguages = (
  db: Queries,
  teacher: string,
): Promise<{ id: string; title: string; language: string }[]> =>
  select(
    db,
    z.object({ id: Id, title: z.string(), language: LanguageTag }),
    `select c.id, c.title, c.spoken_language as language from courses c
     join enrolments e on e.course = c.id and e.person = $1 and e.role = 'teacher'
     where not c.second_marking order by c.title, c.id`,
    [teacher],
  );

export async function updateOwnLanguage(db: Queries, person: string, language: string | null): Promise<void> {
  await db.query('update people set spoken_language = $2 where id = $1', [person, language]);
}

export async function updateCourseLanguage(db: Queries, course: string, language: string): Promise<void> {
  await db.query('update courses set spoken_language = $2 where id = $1', [course, language]);
}
