import express from 'express';
import { once } from 'node:events';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, get, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { brotliCompressSync, gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { Problem } from '../../contract/problem.ts';
import { createApp } from '../app.ts';
import type { Context } from '../context.ts';
import { DatabaseError } from '../db/database.ts';
import { NoRoom } from '../db/room.ts';
import { readSettings } from '../settings.ts';
import { answerProblem } from './problem-handler.ts';

let server: Server;
let address: string;
const webFolder = mkdtempSync(path.join(tmpdir(), 'vivid-web-'));
const query = vi.fn<Context['db']['query']>();

beforeAll(async () => {
  mkdirSync(path.join(webFolder, 'assets'));
  writeFileSync(path.join(webFolder, 'index.html'), '<!doctype html><title>app</title>');
  const asset = path.join(webFolder, 'assets', 'app-1a2b.js');
  const code = `export const x = '${'long '.repeat(1000)}';`;
  writeFileSync(asset, code);
  writeFileSync(`${asset}.gz`, gzipSync(code));
  writeFileSync(`${asset}.br`, brotliCompressSync(code));
  const db = { query, script: vi.fn(), transaction: vi.fn(), tidy: vi.fn(), room: vi.fn(), close: vi.fn() };
  const settings = { ...readSettings({ VIVID_HOSTS: 'margin.school.example' }), webFolder };
  server = createServer(
    createApp({
      db,
      settings,
      readDocument: vi.fn(),
      speech: {} as Context['speech'],
      translators: [],
      bank: {} as Context['bank'],
      recognition: {} as Context['recognition'],
    }),
  );
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
  address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => {
  server.close();
  rmSync(webFolder, { recursive: true });
});

const problemOf = async (response: Response): Promise<Problem> => {
  expect(response.headers.get('Content-Type')).toContain('application/problem+json');
  return Problem.parse(await response.json());
};

describe('the built app', () => {
  it('is answered at every address of the app, and asked for anew each time', async () => {
    for (const url of ['/', '/desk/1', '/no/such/page']) {
      const response = await fetch(address + url);
      expect(await response.text()).toContain('<title>app</title>');
      expect(response.headers.get('Cache-Control')).toBe('no-cache');
    }
  });

  it.each([
    ['gzip', 'gzip'],
    ['gzip, deflate, br', 'br'],
    ['identity', null],
  ])('has assets that are cached for ever and sent as packed by the build (%s)', async (accepted, sent) => {
    const response = await fetch(`${address}/assets/app-1a2b.js`, { headers: { 'Accept-Encoding': accepted } });
    expect(response.headers.get('Cache-Control')).toContain('immutable');
    expect(response.headers.get('Content-Encoding')).toBe(sent);
    expect(await response.text()).toMatch(/^export const x = 'long /);
  });

  it('does not answer with the app for an asset that is gone', async () => {
    expect((await fetch(`${address}/assets/old-9z.js`)).status).toBe(404);
  });

  it('gives nothing outside of its folder', async () => {
    const response = await fetch(`${address}/assets/..%2f..%2f..%2fetc%2fpasswd`);
    expect(await response.text()).not.toContain('root:');
  });
});

describe('a problem', () => {
  it('of the request is told as RFC 9457 details with a sentence', async () => {
    const broken = await fetch(`${address}/api/session`, {
      method: 'POST',
      body: '{',
      headers: { 'Content-Type': 'application/json' },
    });
    expect(await problemOf(broken)).toMatchObject({ status: 400, title: 'Not understood' });
    const incomplete = await fetch(`${address}/api/session`, {
      method: 'POST',
      body: '{}',
      headers: { 'Content-Type': 'application/json' },
    });
    expect((await problemOf(incomplete)).detail).toMatch(/^The request was not understood: /);
    const large = await fetch(`${address}/api/session`, {
      method: 'POST',
      body: JSON.stringify({ login: 'x'.repeat(2 * 1024 * 1024) }),
      headers: { 'Content-Type': 'application/json' },
    });
    expect((await problemOf(large)).detail).toContain('larger than 1 MB');
  });

  it('is told where an address is none', async () => {
    for (const path of ['/api/%E0%A4%A', '/api/submissions/%00', '/api/submissions/not-an-id/feedback'])
      expect([404, 401]).toContain((await fetch(`${address}${path}`)).status);
    expect((await fetch(`${address}/api/%E0%A4%A`)).status).toBe(404);
  });

  it('is told where the server does not know its own name', async () => {
    const { port } = server.address() as AddressInfo;
    const ask = (host: string): Promise<number> =>
      new Promise((resolve, reject) => {
        get({ host: '127.0.0.1', port, path: '/', headers: { Host: host } }, (response) => {
          response.resume();
          resolve(response.statusCode!);
        }).on('error', reject);
      });
    for (const host of [
      'localhost',
      `LOCALHOST:${port}`,
      '127.0.0.1',
      '[::1]:80',
      '192.168.1.7',
      'margin.school.example',
    ])
      expect([host, await ask(host)]).toEqual([host, 200]);
    for (const host of ['evil.example', `localhost.evil.example:${port}`, 'a b'])
      expect([host, await ask(host)]).toEqual([host, 421]);
  });

  it.each(['22021', '22P05', '22003', '23514'])('is told where the database refuses a value (%s)', async (code) => {
    query.mockRejectedValueOnce(new DatabaseError('no', code, undefined, undefined));
    expect(await problemOf(await fetch(`${address}/api/school`))).toMatchObject({
      status: 422,
      title: 'Cannot be kept',
    });
  });

  it('is told where the disk is full', async () => {
    query.mockRejectedValueOnce(new NoRoom('/data', 0));
    const problem = await problemOf(await fetch(`${address}/api/school`));
    expect(problem).toMatchObject({ status: 507, title: 'No room left' });
    expect(problem.detail).not.toContain('/data');
  });

  it('is told where a body is nothing but brackets', async () => {
    const body = `${'['.repeat(200_000)}${']'.repeat(200_000)}`;
    const headers = { 'Content-Type': 'application/json' };
    expect((await fetch(`${address}/api/session`, { method: 'POST', body, headers })).status).toBe(400);
  });

  it('that nobody foresaw is logged, and its innards are kept in', async () => {
    const log = vi.spyOn(process.stderr, 'write').mockReturnValue(true);
    query.mockRejectedValueOnce(new Error('relation "secrets" does not exist'));
    const problem = await problemOf(await fetch(`${address}/api/school`));
    expect(log).toHaveBeenCalledWith(expect.stringContaining('secrets'));
    log.mockRestore();
    expect(problem).toMatchObject({ status: 500, title: 'Something went wrong' });
    expect(JSON.stringify(problem)).not.toContain('secrets');
  });

  it('after the answer has begun ends the connection instead of a second answer', async () => {
    const app = express();
    app.get('/', (_request, response, next) => {
      response.write('half');
      next(new Error('late'));
    });
    app.use(answerProblem);
    app.use(((_error, _request, response, _next) => response.destroy()) as express.ErrorRequestHandler);
    const small = createServer(app).listen(0);
    await once(small, 'listening');
    const text = fetch(`http://127.0.0.1:${(small.address() as AddressInfo).port}/`).then((response) =>
      response.text(),
    );
    await expect(text).rejects.toThrow();
    small.close();
  });
});

describe('settings', () => {
  it('have defaults that work on one machine', () => {
    expect(readSettings({})).toMatchObject({
      port: 4174,
      host: '127.0.0.1',
      databaseUrl: undefined,
      maxFileBytes: 25 * 1024 * 1024,
      secureCookies: false,
    });
  });

  it('come from the environment, and a wrong one is named', () => {
    expect(readSettings({ PORT: '80', VIVID_SECURE_COOKIES: 'true', VIVID_MAX_FILE_MB: '0.5' })).toMatchObject({
      port: 80,
      secureCookies: true,
      maxFileBytes: 524_288,
    });
    expect(() => readSettings({ PORT: 'eighty' })).toThrow('PORT');
    expect(() => readSettings({ VIVID_SECURE_COOKIES: 'perhaps' })).toThrow('VIVID_SECURE_COOKIES');
  });
});
