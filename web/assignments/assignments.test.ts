// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Question } from '#contract/assignments';
import { mountInApp } from '../testing/mount.ts';
import { useSession } from '../session/session.ts';
import AnswerForm from './AnswerForm.vue';
import HandIn from '../hand-in/HandIn.vue';

const ID = '6f0b3c0e-7d55-4f58-9a52-0d0f0a1b2c3d';
const [N, C, L] = ['1', '2', '3'].map((digit) => ID.replace(/.$/, digit)) as [string, string, string];
useSession().person = { id: ID, name: 'Student', teaches: false, learns: true };

const server = vi.fn<(url: string, request?: RequestInit) => Promise<Response>>();
vi.stubGlobal('fetch', server);
beforeEach(() => {
  localStorage.clear();
  server.mockReset();
});

describe('handing in files', () => {
  const file = (name: string, bytes = 10): File => new File([new Uint8Array(bytes)], name);
  const school = { name: 'S', zone: 'UTC', samplePeople: [], empty: false, limits: { fileBytes: 1024 * 1024 } };

  async function form() {
    server.mockImplementation(() => Promise.resolve(Response.json(school)));
    const wrapper = mountInApp(HandIn, { assignment: ID, again: false });
    const choose = async (...files: File[]): Promise<void> => {
      const input = wrapper.get<HTMLInputElement>('input[type=file]');
      Object.defineProperty(input.element, 'files', { value: files, configurable: true });
      await input.trigger('change');
    };
    return { wrapper, choose };
  }

  it('lists what was chosen, and lets any of it be left out', async () => {
    const { wrapper, choose } = await form();
    expect(wrapper.text()).toContain('or drop them here');
    await choose(file('a.docx'), file('b.png', 3000));
    await choose(file('c.ogg'));
    expect(wrapper.findAll('.files li').map((row) => row.get('.name').text())).toEqual(['a.docx', 'b.png', 'c.ogg']);
    expect(wrapper.text()).toContain('2.9 kB');
    await wrapper.get('[aria-label="Leave out b.png"]').trigger('click');
    expect(wrapper.findAll('.files li')).toHaveLength(2);
  });

  it('takes files that are dropped', async () => {
    const { wrapper } = await form();
    await wrapper.get('.drop').trigger('dragover');
    expect(wrapper.get('.drop').classes()).toContain('over');
    await wrapper.get('.drop').trigger('drop', { dataTransfer: { files: [file('d.pdf')] } });
    expect(wrapper.text()).toContain('d.pdf');
    expect(wrapper.get('.drop').classes()).not.toContain('over');
  });

  it('sends nothing that is too large, and says so', async () => {
    const { wrapper, choose } = await form();
    await choose(file('a.wav', 600 * 1024), file('b.wav', 600 * 1024));
    await wrapper.findAll('button').at(-1)!.trigger('click');
    await flushPromises();
    expect(wrapper.get('[role=alert]').text()).toContain('larger than 1 MB');
    expect(wrapper.findAll('.files li')).toHaveLength(2);
    expect(server.mock.calls.filter(([, request]) => (request?.method ?? 'GET') !== 'GET')).toEqual([]);
  });

  it('takes twenty files and no more', async () => {
    const { wrapper, choose } = await form();
    await choose(...Array.from({ length: 22 }, (_, index) => file(`${index}.txt`)));
    expect(wrapper.findAll('.files li')).toHaveLength(20);
    expect(wrapper.get('[role=alert]').text()).toContain('up to 20 files');
  });
});

describe('answering questions', () => {
  const question = (id: string, kind: Question['kind'], choices: string[] = []): Question => ({
    id,
    kind,
    prompt: `About ${id}?`,
    choices,
    points: 150,
  });
  const questions = [question(N, 'number'), question(C, 'choice', ['ebb', 'flood']), question(L, 'long')];
  const form = (again = false) => mountInApp(AnswerForm, { assignment: ID, questions, again });
  const KEY = `answers:${ID}:${ID}`;
  const bodies = (): unknown[] =>
    server.mock.calls.flatMap(([, request]) => (request?.body ? [JSON.parse(request.body as string)] : []));

  it('shows what was kept on the server, and counts what is answered', async () => {
    server.mockResolvedValue(Response.json({ answers: { [N]: '4.1' } }));
    const wrapper = form();
    await flushPromises();
    expect(wrapper.get<HTMLInputElement>('[aria-label="Answer to question 1"]').element.value).toBe('4.1');
    expect(wrapper.text()).toContain('1 of 3 answered');
    expect(wrapper.text()).toContain('Question 1, 1.5 points');
  });

  it('keeps what is typed in the browser at once, and on the server soon after', async () => {
    vi.useFakeTimers();
    server.mockImplementation((_, request) =>
      Promise.resolve(
        Response.json({
          answers: request?.body ? (JSON.parse(request.body as string) as { answers: object }).answers : {},
        }),
      ),
    );
    const wrapper = form();
    await vi.advanceTimersByTimeAsync(10);
    await wrapper.get('[aria-label="Answer to question 3"]').setValue('Because');
    await vi.advanceTimersByTimeAsync(10);
    expect(localStorage.getItem(KEY)).toContain('Because');
    expect(bodies()).toEqual([]);
    await vi.advanceTimersByTimeAsync(2000);
    expect(bodies()).toEqual([{ answers: { [L]: 'Because' } }]);
    expect(wrapper.text()).toContain('Everything you wrote is saved.');
    expect(localStorage.getItem(KEY) ?? '').not.toContain('Because');
    vi.useRealTimers();
  });

  it('says that the server is away, and has everything again after a reload', async () => {
    server.mockRejectedValue(new TypeError('away'));
    const wrapper = form();
    await flushPromises();
    expect(wrapper.text()).toContain('The server cannot be reached.');
    await wrapper.get('[aria-label="Answer to question 3"]').setValue('half a sen');
    await flushPromises();
    wrapper.unmount();
    const again = form();
    await flushPromises();
    expect(again.get<HTMLTextAreaElement>('[aria-label="Answer to question 3"]').element.value).toBe('half a sen');
  });

  it('tells a number that is none while it is typed, and hands in what is there', async () => {
    server.mockImplementation((url) =>
      Promise.resolve(
        Response.json(url.endsWith('handed-in') ? { submission: ID } : { answers: { [N]: '4.1', [C]: 'ebb' } }),
      ),
    );
    const wrapper = form(true);
    await flushPromises();
    await wrapper.get('[aria-label="Answer to question 1"]').setValue('four');
    await flushPromises();
    expect(wrapper.text()).toContain('written like 3.5');
    await wrapper.get('[aria-label="Answer to question 1"]').setValue('4');
    await wrapper.get('form').trigger('submit');
    await flushPromises();
    expect(wrapper.text()).toContain('Your answers have been handed in.');
    expect(bodies().at(-1)).toEqual({ answers: { [N]: '4', [C]: 'ebb' } });
    expect(wrapper.emitted('done')).toHaveLength(1);
  });

  it('says in the server’s words why answers were refused, and keeps them', async () => {
    const problem = { type: 'x', title: 'x', status: 422, detail: 'The answer to question 1 is not of the kind.' };
    server.mockImplementation((url) =>
      Promise.resolve(
        url.endsWith('handed-in')
          ? new Response(JSON.stringify(problem), { status: 422 })
          : Response.json({ answers: { [N]: '4' } }),
      ),
    );
    const wrapper = form();
    await flushPromises();
    await wrapper.get('form').trigger('submit');
    await flushPromises();
    expect(wrapper.get('.refused[role=alert]').text()).toBe(problem.detail);
    expect(wrapper.get<HTMLInputElement>('[aria-label="Answer to question 1"]').element.value).toBe('4');
  });
});
