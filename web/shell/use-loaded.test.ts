// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { describe, expect, it } from 'vitest';
import { effectScope, ref } from 'vue';
import { Unreachable } from '../session/api.ts';
import { useLoaded } from './use-loaded.ts';

interface Asked {
  what: string;
  answer: (value: string) => void;
  fail: (error: Error) => void;
}

function loading() {
  const source = ref('first');
  const asked: Asked[] = [];
  const loaded = effectScope().run(() =>
    useLoaded(
      () => new Promise<string>((answer, fail) => asked.push({ what: source.value, answer, fail })),
      () => source.value,
    ),
  )!;
  return { source, asked, ...loaded };
}

describe('useLoaded', () => {
  it('asks at once, and again when its source changes', async () => {
    const { source, asked, value } = loading();
    asked[0]!.answer('one');
    await flushPromises();
    expect(value.value).toBe('one');
    source.value = 'second';
    await flushPromises();
    asked[1]!.answer('two');
    await flushPromises();
    expect([asked.map(({ what }) => what), value.value]).toEqual([['first', 'second'], 'two']);
  });

  it('drops an answer that comes later than the one to a newer question', async () => {
    const { source, asked, value, error } = loading();
    source.value = 'second';
    await flushPromises();
    asked[1]!.answer('two');
    await flushPromises();
    asked[0]!.answer('one');
    await flushPromises();
    expect(value.value).toBe('two');
    source.value = 'third';
    await flushPromises();
    source.value = 'fourth';
    await flushPromises();
    asked[2]!.fail(new Unreachable());
    await flushPromises();
    expect(error.value).toBeNull();
  });

  it('says what went wrong, and tries again', async () => {
    const { asked, value, error, load } = loading();
    asked[0]!.fail(new Unreachable());
    await flushPromises();
    expect(error.value).toBe('The server cannot be reached at the moment.');
    void load();
    asked[1]!.answer('one');
    await flushPromises();
    expect([error.value, value.value]).toEqual([null, 'one']);
  });
});
