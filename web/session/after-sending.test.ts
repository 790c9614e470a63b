import { beforeEach, describe, expect, it, vi } from 'vitest';
import { z } from 'zod';
import { endpoint } from '#contract/endpoint';
import { RESUMABLE_BYTES } from '#contract/uploads';
import { call } from './api.ts';
import { forgetSent, sendFiles } from './resumable.ts';

vi.mock('./resumable.ts', () => ({ sendFiles: vi.fn(), forgetSent: vi.fn(() => Promise.resolve()) }));

const keep = endpoint({
  method: 'PUT',
  path: '/remarks',
  body: z.object({ text: z.string() }),
  upload: { files: 'any', largest: 'recording' },
  answer: z.object({}),
});
const server = vi.fn<typeof fetch>();
vi.stubGlobal('fetch', server);
const sent = vi.mocked(sendFiles);
const long = new Blob([new Uint8Array(RESUMABLE_BYTES + 1)]);
const problem = (status: number): Response =>
  Response.json({ type: 'x', title: 'x', status, detail: 'Not there.' }, { status });
const bodies = () => server.mock.calls.map(([, request]) => request!.body);

beforeEach(() => {
  vi.mocked(forgetSent).mockClear();
  server.mockReset();
  let times = 0;
  sent.mockReset().mockImplementation(() => {
    const done = Promise.resolve([{ upload: `u${++times}`, name: 'recording' }]);
    return { done, pause: vi.fn(), goOn: vi.fn(), stop: vi.fn() };
  });
});

describe('a request with a long recording', () => {
  it('names what has been sent before it, and forgets that once it is kept', async () => {
    server.mockResolvedValue(Response.json({}));
    await call(keep, { body: { text: 'a' }, files: [long] });
    expect(bodies()).toEqual([JSON.stringify({ body: { text: 'a' }, uploads: [{ upload: 'u1', name: 'recording' }] })]);
    expect(forgetSent).toHaveBeenCalledTimes(1);
  });

  it.each([404, 410])('sends it once more where it is not there any more (%d), but not for ever', async (status) => {
    server.mockResolvedValueOnce(problem(status)).mockResolvedValueOnce(Response.json({}));
    await call(keep, { body: { text: 'a' }, files: [long] });
    expect(bodies()[1]).toContain('u2');
    server.mockReset().mockImplementation(() => Promise.resolve(problem(status)));
    await expect(call(keep, { body: { text: 'a' }, files: [long] })).rejects.toThrow('Not there.');
    expect(server).toHaveBeenCalledTimes(2);
  });

  it('is not sent again for another reason, and goes on later where it was', async () => {
    server.mockResolvedValue(problem(409));
    await expect(call(keep, { body: { text: 'a' }, files: [long] })).rejects.toThrow('Not there.');
    expect(sent).toHaveBeenCalledTimes(1);
    expect(forgetSent).not.toHaveBeenCalled();
  });

  it('a short one goes along with its request', async () => {
    server.mockResolvedValue(Response.json({}));
    await call(keep, { body: { text: 'a' }, files: [new Blob(['short'])] });
    expect(sent).not.toHaveBeenCalled();
    expect(bodies()[0]).toBeInstanceOf(FormData);
  });
});
