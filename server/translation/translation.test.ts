import express, { type RequestHandler } from 'express';
import { once } from 'node:events';
import { chmodSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import type { Recording } from '../../contract/recordings.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { handIn, sayRemark, startTestSchool, type TestSchool } from '../testing/school.ts';
import { putAgreement } from '../speech/agreements.ts';
import { apertium } from './apertium.ts';
import { phraseList } from './phrase-list.ts';
import { translateWords } from './translate.ts';
import { translateServer } from './translate-server.ts';
import { TranslationError, type Translator } from './translator.ts';

describe('the phrase list', () => {
  it('knows whole sentences by heart, and no others', async () => {
    expect(await phraseList.translate('Well done.', 'en', 'es')).toBe('Bien hecho.');
    expect(await phraseList.translate('WELL DONE!', 'en-GB', 'es-MX')).toBe('Bien hecho.');
    expect(await phraseList.translate('Well done, limpet.', 'en', 'es')).toBeUndefined();
    expect(phraseList.knows('en', 'tlh')).toBe(false);
  });
});

describe('Apertium, the real one', () => {
  const translator = apertium()!;

  it('is found with Debian’s packages, and knows its pairs by ISO 639-1 and 639-3', () => {
    expect(translator).toMatchObject({ name: 'Apertium', textGoesTo: 'this server' });
    expect(translator.knows('en-GB', 'es')).toBe(true);
    expect(translator.knows('es', 'en')).toBe(true);
    expect(translator.knows('en', 'sw')).toBe(false);
  });

  it('translates, also what would mean something to a shell', async () => {
    expect((await translator.translate('The tide comes in.', 'en', 'es'))?.toLowerCase()).toMatch(
      /^la marea (entra|viene)/,
    );
    expect(await translator.translate('$(touch /tmp/no); `x` & "the sea"', 'en', 'es')).toMatch(/mar/);
  });

  it('is not there where the program is not, or knows no pair', () => {
    expect(apertium('/nowhere/apertium')).toBeUndefined();
    expect(apertium('/bin/true')).toBeUndefined();
  });

  it('says so when it dies', async () => {
    const folder = mkdtempSync(path.join(tmpdir(), 'vivid-apertium-'));
    const program = path.join(folder, 'apertium');
    writeFileSync(program, '#!/bin/sh\n[ "$1" = -l ] && echo en-es && exit 0\nexit 3\n');
    chmodSync(program, 0o755);
    await expect(apertium(program)!.translate('words', 'en', 'es')).rejects.toThrow('Apertium stopped unexpectedly.');
    rmSync(folder, { recursive: true });
  });
});

describe('a translation server', () => {
  let server: Server | undefined;
  afterEach(() => {
    server?.closeAllConnections();
    server?.close();
  });
  async function serving(handler: RequestHandler): Promise<string> {
    server = createServer(express().post('/translate', express.json(), handler)).listen(0, '127.0.0.1');
    await once(server, 'listening');
    return `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  }

  it('is asked for text, source and target, with the key', async () => {
    const address = await serving(({ body, headers }, response) => {
      const { text, source, target, api_key } = body as Record<string, string>;
      response.json({ translatedText: [text, source, target, api_key, headers.authorization].join('|') });
    });
    const translator = translateServer({ address, key: 'k3y' });
    expect(await translator.translate('words', 'en-GB', 'pt-BR')).toBe('words|en|pt|k3y|Bearer k3y');
    expect(translator).toMatchObject({
      textGoesTo: 'another server',
      name: `Translation server at ${new URL(address).host}`,
    });
  });

  it.each<[string, RequestHandler, RegExp]>([
    ['it refuses', (_, response) => void response.sendStatus(403), /refused the words \(HTTP 403\)/],
    ['it answers nonsense', (_, response) => void response.send('<html>'), /no translation/],
    ['it answers something else', (_, response) => void response.json({ text: 1 }), /no translation/],
    ['it sends one elsewhere', (_, response) => response.redirect('http://127.0.0.1:1/'), /could not be reached/],
    ['it hangs', () => undefined, /could not be reached/],
  ])('ends in a sentence where %s', async (_, handler, sentence) => {
    const translator = translateServer({ address: await serving(handler), key: undefined }, 300);
    await expect(translator.translate('words', 'en', 'es')).rejects.toThrow(TranslationError);
    await expect(translator.translate('words', 'en', 'es')).rejects.toThrow(sentence);
  });

  it('and where there is none', async () => {
    const translator = translateServer({ address: 'http://127.0.0.1:1', key: undefined });
    await expect(translator.translate('words', 'en', 'es')).rejects.toThrow(/could not be reached/);
  });
});

describe('the words of a remark', () => {
  let test: TestDatabase;
  let school: TestSchool;
  let recording: Recording;
  const asked: string[] = [];
  const translator = (name: string, textGoesTo: Translator['textGoesTo'], answer?: string): Translator => ({
    name,
    textGoesTo,
    knows: () => true,
    translate: (text) => {
      asked.push(`${name}: ${text}`);
      return Promise.resolve(answer);
    },
  });
  const elsewhere = translator('Elsewhere', 'another server', 'allí');
  const here = translator('Here', 'this server', 'aquí');

  beforeAll(async () => {
    test = await bodies[0]!.open();
    school = await startTestSchool(test.db);
    const id = await sayRemark(school, await handIn(school));
    const body = { language: 'en', text: 'well done' };
    recording = (await school.as.teacher.send('PUT', `/recordings/${id}/transcript`, { body })).json as Recording;
  });
  afterAll(async () => {
    await school.stop();
    await test.remove();
  });
  const translate = (translators: Translator[]) =>
    translateWords(test.db, translators, recording.transcript, 'es', school.ids.teacher);

  it('leave this server only when their teacher has agreed', async () => {
    expect(await translate([elsewhere, here])).toEqual({ text: 'aquí', source: 'machine', engine: 'Here' });
    expect(asked).toEqual(['Here: well done']);
    await putAgreement(test.db, school.ids.teacher, 'translation server', true);
    expect(await translate([elsewhere, here])).toMatchObject({ text: 'allí', engine: 'Elsewhere' });
    await putAgreement(test.db, school.ids.teacher, 'translation server', false);
    await expect(translate([elsewhere])).rejects.toThrow();
    expect(asked).toHaveLength(2);
  });

  it('go to the next translator where one does not know them, and to a person where none does', async () => {
    expect(await translate([translator('Knows not', 'this server'), here])).toMatchObject({ engine: 'Here' });
    await expect(translate([translator('Knows not', 'this server')])).rejects.toMatchObject({
      problem: { type: expect.stringContaining('translator') as string },
    });
  });
});
