import { afterEach, describe, expect, it, vi } from 'vitest';
import { effectScope, nextTick, ref } from 'vue';
import { Unreachable } from '../session/refused.ts';

const MEMBERS = [
  { id: 'a', teaches: false, left: false },
  { id: 'teacher', teaches: true, left: false },
  { id: 'b', teaches: false, left: false },
  { id: 'gone', teaches: false, left: true },
  { id: 'c', teaches: false, left: false },
];
/** Answers that are still to come, by student. */
const open = new Map<string, (answer: { away?: boolean }) => void>();
const asked: string[] = [];
const call = vi.fn((_endpoint: unknown, { params }: { params: { student?: string } }): Promise<unknown> => {
  const { student } = params;
  if (student === undefined) return Promise.resolve({ members: MEMBERS });
  asked.push(student);
  return new Promise((resolve, reject) =>
    open.set(student, ({ away }) => (away ? reject(new Unreachable()) : resolve({ student }))),
  );
});
vi.mock('../session/api.ts', () => ({
  call: (...args: Parameters<typeof call>) => call(...args),
  sentenceOf: (error: Error) => error.message,
}));
const { useReports } = await import('./use-reports.ts');

const settle = (): Promise<unknown> => new Promise((resolve) => setTimeout(resolve));
async function answer(student: string, how = {}): Promise<void> {
  open.get(student)!(how);
  await settle();
}
const student = ref<string>();
let scope = effectScope();
async function opened() {
  scope = effectScope();
  const reports = scope.run(() =>
    useReports(
      () => 'course',
      () => student.value,
    ),
  )!;
  await settle();
  return { ...reports, there: () => reports.reports.value.map((one) => one.student) };
}

afterEach(() => {
  scope.stop();
  student.value = undefined;
  asked.length = 0;
  open.clear();
});

describe('reports of a course', () => {
  it('come one after another, of those who learn in it', async () => {
    const { total, there } = await opened();
    expect([total.value, there(), asked]).toEqual([3, [], ['a']]);
    await answer('a');
    expect([there(), asked]).toEqual([['a'], ['a', 'b']]);
    await answer('b');
    await answer('c');
    expect(there()).toEqual(['a', 'b', 'c']);
  });

  it('go on where the line broke off', async () => {
    const { error, load, there } = await opened();
    await answer('a');
    await answer('b', { away: true });
    expect([error.value, there()]).toEqual([new Unreachable().message, ['a']]);
    void load();
    await settle();
    expect([error.value, asked]).toEqual([null, ['a', 'b', 'b']]);
    await answer('b');
    await answer('c');
    expect(there()).toEqual(['a', 'b', 'c']);
  });

  it('leave out what is not asked for any more', async () => {
    const { total, there } = await opened();
    student.value = 'c';
    await nextTick();
    await answer('a');
    expect([total.value, there(), asked]).toEqual([1, [], ['a', 'c']]);
    await answer('c');
    expect(there()).toEqual(['c']);
  });
});
