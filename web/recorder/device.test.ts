// @vitest-environment happy-dom
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { nextTick } from 'vue';

const path = { connect: vi.fn(() => Promise.resolve()), context: { resume: vi.fn(() => Promise.resolve()) } };
vi.mock('./sound-path.ts', () => ({
  SoundPath: class {
    connect = path.connect;
    context = path.context;
  },
}));
vi.mock('./sound-work.ts', () => ({ warmUp: vi.fn() }));
const practice = { output: {}, speak: vi.fn(() => 2), hush: vi.fn() };
vi.mock('./practice-microphone.ts', () => ({ PracticeMicrophone: { open: () => Promise.resolve(practice) } }));
const { microphoneDevice } = await import('./device.ts');

class Track extends EventTarget {
  stop = vi.fn();
}
let tracks: Track[] = [];
const getUserMedia = vi.fn<() => Promise<unknown>>();
vi.stubGlobal('navigator', { mediaDevices: { getUserMedia } });
vi.stubGlobal('AudioContext', vi.fn());
vi.stubGlobal('MediaStreamAudioSourceNode', vi.fn());

const onLost = vi.fn();
const device = (mayPractise = false) => microphoneDevice({ mayPractise: () => Promise.resolve(mayPractise), onLost });

beforeEach(() => {
  localStorage.clear();
  tracks = [];
  onLost.mockReset();
  getUserMedia.mockReset().mockImplementation(() => {
    const track = new Track();
    tracks.push(track);
    return Promise.resolve({ getAudioTracks: () => [track], getTracks: () => [track] });
  });
});

describe('the microphone', () => {
  it('is opened once, stays warm, and is given back', async () => {
    const mic = device();
    expect(await Promise.all([mic.warm(), mic.warm()])).toEqual([true, true]);
    expect([await mic.warm(), mic.state.value]).toEqual([true, 'ready']);
    expect(getUserMedia).toHaveBeenCalledOnce();
    mic.cool();
    expect([mic.state.value, tracks[0]!.stop.mock.calls.length]).toEqual(['off', 1]);
  });

  it('is neither given back nor changed while it is held, and given back right after', async () => {
    const mic = device();
    await mic.warm();
    mic.hold();
    mic.cool();
    expect(await mic.change(() => undefined)).toBe(false);
    expect([mic.state.value, tracks[0]!.stop.mock.calls.length]).toEqual(['ready', 0]);
    mic.release();
    expect([mic.state.value, tracks[0]!.stop.mock.calls.length]).toEqual(['off', 1]);
  });

  it('tells whoever holds it when it is unplugged, and everybody in a sentence', async () => {
    const mic = device();
    await mic.warm();
    tracks[0]!.dispatchEvent(new Event('ended'));
    expect([mic.state.value, onLost.mock.calls.length]).toEqual(['off', 0]);
    await mic.warm();
    mic.hold();
    tracks[1]!.dispatchEvent(new Event('ended'));
    expect(onLost).toHaveBeenCalledOnce();
    expect(mic.problem.value).toContain('was unplugged');
  });

  it('is changed to another one', async () => {
    const mic = device();
    await mic.warm();
    expect(await mic.change(() => (mic.chosen.value = 'usb'))).toBe(true);
    await nextTick();
    expect(tracks[0]!.stop).toHaveBeenCalled();
    expect(getUserMedia).toHaveBeenLastCalledWith({
      audio: expect.objectContaining({ deviceId: { exact: 'usb' } }) as unknown,
    });
  });

  it('gives way to the practice microphone where there is none, for whoever may practise', async () => {
    const missing = () => Promise.reject(new DOMException('', 'NotFoundError'));
    getUserMedia.mockImplementation(missing);
    const alone = device();
    expect([await alone.warm(), alone.state.value]).toEqual([false, 'off']);
    expect(alone.problem.value).toContain('No microphone was found');
    const pupil = device(true);
    expect([await pupil.warm(), pupil.practising.value, pupil.state.value]).toEqual([true, true, 'ready']);
    expect(pupil.speak(0.3)).toEqual({ type: 'practice', sentence: 2, from: 0.3 });
    expect(pupil.track()).toBeUndefined();
  });

  it('that is refused is told, and nobody practises instead', async () => {
    getUserMedia.mockRejectedValue(new DOMException('', 'NotAllowedError'));
    const mic = device(true);
    expect([await mic.warm(), mic.practising.value]).toEqual([false, false]);
    expect(mic.problem.value).toContain('was not allowed');
    expect(mic.speak(0)).toEqual({ type: 'device' });
  });
});
