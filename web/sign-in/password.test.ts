// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { mountInApp } from '../testing/mount.ts';
import PasswordPage from './PasswordPage.vue';

const push = vi.hoisted(() => vi.fn());
vi.mock('vue-router', async (original) => ({
  ...(await original<typeof import('vue-router')>()),
  useRouter: () => ({ push }),
}));
const server = vi.fn<typeof fetch>();
vi.stubGlobal('fetch', server);
const frame = { PageFrame: { template: '<div><slot /></div>' } };

beforeEach(() => {
  push.mockReset();
  server.mockReset().mockImplementation(() => Promise.resolve(Response.json({})));
});

const filled = async (...words: string[]) => {
  const page = mountInApp(PasswordPage, {}, frame);
  for (const [index, field] of page.findAll('input').entries()) await field.setValue(words[index]);
  return page;
};

describe('the page for a new password', () => {
  it('sends nothing before both say the same, and long enough', async () => {
    const short = await filled('now', 'short', 'short');
    expect(short.text()).toContain('At least 8 characters');
    expect(short.get('[type=submit]').attributes('disabled')).toBeDefined();
    const different = await filled('now', 'long enough', 'long enoguh');
    expect(different.text()).toContain('This is not the same');
    expect(different.get('[type=submit]').attributes('disabled')).toBeDefined();
  });

  it('changes it, says so, and forgets what was typed', async () => {
    const page = await filled('now', 'long enough', 'long enough');
    await page.get('form').trigger('submit');
    await flushPromises();
    const sent = server.mock.calls.filter(([url]) => url !== '/api/sessions');
    expect(sent.map(([url, request]) => [url, request?.method, request?.body])).toEqual([
      ['/api/password', 'PUT', '{"current":"now","next":"long enough"}'],
    ]);
    expect(page.get('[role=status]').text()).toContain('You stay signed in here');
    expect(page.findAll('input').map(({ element }) => element.value)).toEqual(['', '', '']);
  });

  it('says why it was refused, and keeps what was typed', async () => {
    const problem = { type: 'x', title: 'x', status: 422, detail: 'Check it and try again.' };
    server.mockImplementation(() => Promise.resolve(new Response(JSON.stringify(problem), { status: 422 })));
    const page = await filled('wrong', 'long enough', 'long enough');
    await page.get('form').trigger('submit');
    await flushPromises();
    expect(page.get('[role=alert]').text()).toBe('Check it and try again.');
    expect(page.findAll('input')[1]!.element.value).toBe('long enough');
  });

  it('signs out everywhere, and leads to where one signs in', async () => {
    const page = await filled();
    await page.get('section button').trigger('click');
    await flushPromises();
    expect(server.mock.calls.map(([url, request]) => [url, request?.method])).toContainEqual([
      '/api/sessions',
      'DELETE',
    ]);
    expect(push).toHaveBeenCalledWith({ name: 'sign-in' });
  });
});
