// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from 'vitest';
import { isMissing, microphoneIsGranted, microphoneSentence, openMicrophone } from './microphone.ts';

afterEach(() => vi.unstubAllGlobals());

describe('microphoneSentence', () => {
  // The names are those of the Media Capture and Streams specification, section 10.2 (getUserMedia).
  it.each([
    ['NotAllowedError', 'Allow it in the address bar'],
    ['NotFoundError', 'Plug one in'],
    ['NotReadableError', 'in use by another program'],
    ['SecurityError', 'over https'],
    ['AbortError', 'Unplug it'],
  ])('says for %s what to do', (name, advice) => {
    expect(microphoneSentence(new DOMException('', name))).toContain(advice);
  });

  it('has a sentence for whatever else happens', () => {
    expect(microphoneSentence(new Error('odd'))).toMatch(/^The microphone could not be started\./);
  });
});

describe('isMissing', () => {
  it('is only for a microphone that is not there', () => {
    expect(isMissing(new DOMException('', 'NotFoundError'))).toBe(true);
    expect(isMissing(new DOMException('', 'NotAllowedError'))).toBe(false);
  });
});

describe('openMicrophone', () => {
  it('says so where a page may not have one at all', async () => {
    vi.stubGlobal('navigator', {});
    await expect(openMicrophone()).rejects.toMatchObject({ name: 'SecurityError' });
  });

  it('asks for sound only', async () => {
    const getUserMedia = vi.fn((_wanted: MediaStreamConstraints) => Promise.resolve('stream'));
    vi.stubGlobal('navigator', { mediaDevices: { getUserMedia } });
    expect(await openMicrophone()).toBe('stream');
    expect(Object.keys(getUserMedia.mock.calls[0]![0])).toEqual(['audio']);
  });
});

describe('microphoneIsGranted', () => {
  it('believes the browser, and does not ask one that cannot tell', async () => {
    const query = vi
      .fn()
      .mockResolvedValueOnce({ state: 'granted' })
      .mockResolvedValueOnce({ state: 'prompt' })
      .mockRejectedValueOnce(new TypeError());
    vi.stubGlobal('navigator', { permissions: { query } });
    expect([await microphoneIsGranted(), await microphoneIsGranted(), await microphoneIsGranted()]).toEqual([
      true,
      false,
      false,
    ]);
  });
});
