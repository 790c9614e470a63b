import { beforeEach, describe, expect, it, vi } from 'vitest';
import { z } from 'zod';
import { endpoint } from '#contract/endpoint';
import { PROBLEM_MEDIA_TYPE } from '#contract/problem';
import { call, Refused, sentenceOf, Unreachable } from './api.ts';

const read = endpoint({ method: 'GET', path: '/works/:work/pages/:page', answer: z.object({ text: z.string() }) });
const write = endpoint({
  method: 'PUT',
  path: '/works/:work',
  body: z.object({ text: z.string() }),
  answer: z.object({}),
});
const upload = endpoint({
  method: 'POST',
  path: '/works',
  body: z.object({ a: z.int() }),
  upload: { files: 'perhaps', largest: 'work' },
  answer: z.object({}),
});

const server = vi.fn<typeof fetch>();
vi.stubGlobal('fetch', server);
beforeEach(() => server.mockReset());
const requestMade = () => server.mock.calls[0] as [string, RequestInit];

describe('call', () => {
  it('puts parameters into the path, safely, and reads the answer through its schema', async () => {
    server.mockResolvedValue(Response.json({ text: 'hello', more: 'than agreed' }));
    expect(await call(read, { params: { work: 'a/../b', page: '2' } })).toEqual({ text: 'hello' });
    expect(requestMade()).toEqual(['/api/works/a%2F..%2Fb/pages/2', { method: 'GET' }]);
  });

  it('does not take an answer that is not what was agreed', async () => {
    server.mockResolvedValue(Response.json({ text: 7 }));
    await expect(call(read, { params: { work: '1', page: '2' } })).rejects.toThrow(z.ZodError);
  });

  it('sends JSON', async () => {
    server.mockResolvedValue(Response.json({}));
    await call(write, { params: { work: '1' }, body: { text: 'x' } });
    expect(requestMade()[1]).toEqual({
      method: 'PUT',
      body: '{"text":"x"}',
      headers: { 'Content-Type': 'application/json' },
    });
  });

  it('sends a file beside its body as a form', async () => {
    server.mockImplementation(() => Promise.resolve(Response.json({})));
    await call(upload, { body: { a: 1 }, files: [new File(['sound'], 'Ärger.docx')] });
    const form = requestMade()[1].body as FormData;
    expect(form.get('body')).toBe('{"a":1}');
    expect((form.get('file') as File).name).toBe('Ärger.docx');
  });

  it('names files that were sent before', async () => {
    server.mockImplementation(() => Promise.resolve(Response.json({})));
    const uploads = [{ upload: 'u', name: 'a.docx' }];
    await call(upload, { body: { a: 1 }, uploads });
    expect(requestMade()[1].body).toBe(JSON.stringify({ body: { a: 1 }, uploads }));
  });

  it('takes a request that was cut because it was slow for an answer, though it comes without words', async () => {
    server.mockResolvedValue(new Response('', { status: 408 }));
    await expect(call(write, { params: { work: '1' }, body: { text: 'x' } })).rejects.toThrow('too slow');
  });

  it('tells what the server refuses in the server’s words', async () => {
    const problem = { type: 'x', title: 'x', status: 409, detail: 'This work has been returned.' };
    server.mockResolvedValue(
      new Response(JSON.stringify(problem), { status: 409, headers: { 'Content-Type': PROBLEM_MEDIA_TYPE } }),
    );
    const error = await call(write, { params: { work: '1' }, body: { text: '' } }).catch((caught: unknown) => caught);
    expect(error).toBeInstanceOf(Refused);
    expect(sentenceOf(error)).toBe('This work has been returned.');
  });

  it('knows a server that is away from one that refuses', async () => {
    server
      .mockRejectedValueOnce(new TypeError('Failed to fetch'))
      .mockResolvedValueOnce(new Response('<h1>Bad gateway</h1>', { status: 502 }));
    for (let tries = 0; tries < 2; tries++)
      await expect(call(read, { params: { work: '1', page: '1' } })).rejects.toThrow(Unreachable);
  });

  it('has a sentence for everything', () => {
    expect(sentenceOf(new Unreachable())).toContain('cannot be reached');
    expect(sentenceOf('?')).toContain('Something unexpected');
  });
});
