import { writeWav } from '#core/audio';
import type { Page } from '@playwright/test';
import { enter, expect, openDesk, remarksOnServer, saved, TEACHER, test } from './school.ts';

test.use({ school: 'over' });

const RATE = 8000;
/** Seconds. */
const FURTHEST_APART = 0.02;
/** When the student claps: at no regular time, so that only one lag fits. */
const CLAPS = [0.5, 1.1, 1.45, 2.2, 2.6, 3.3, 3.5, 4.3, 4.9, 5.2, 6.1, 6.45, 7.3, 7.9, 8.2, 9.1];
const CLAP_SECONDS = 0.03;

/** Ten seconds in which somebody claps at some moments. */
function clapping(times: readonly number[]): Float32Array {
  const samples = new Float32Array(10 * RATE);
  for (const clap of times)
    for (let at = 0; at < CLAP_SECONDS * RATE; at++)
      samples[Math.round(clap * RATE) + at] = 0.6 * Math.sin(2 * Math.PI * 700 * (at / RATE));
  return samples;
}

/**
 * A microphone before which somebody claps along with the recording. A busy machine claps late now and then, so that it tells
 * where the recording was at each.
 */
const clapAlong = (page: Page): Promise<unknown> =>
  page.addInitScript(
    ([times, length]) => {
      const played = new Set<HTMLMediaElement>();
      const clapped: number[] = [];
      Object.assign(window, { played, clapped });
      const { play } = HTMLMediaElement.prototype;
      HTMLMediaElement.prototype.play = function (this: HTMLMediaElement) {
        played.add(this);
        return play.call(this);
      };
      navigator.mediaDevices.getUserMedia = async () => {
        const context = new AudioContext({ latencyHint: 0 });
        const heard = context.createMediaStreamDestination();
        const hand = context.createGain();
        hand.gain.value = 0;
        const tone = context.createOscillator();
        tone.frequency.value = 700;
        tone.connect(hand).connect(heard);
        tone.start();
        let before = 0;
        setInterval(() => {
          const media = document.querySelector<HTMLMediaElement>('.leaf.sound audio');
          if (!media || media.paused) return;
          const now = media.currentTime;
          for (const time of times)
            if (time > before && time <= now) {
              clapped.push(now);
              hand.gain.setValueAtTime(0.6, context.currentTime);
              hand.gain.setValueAtTime(0, context.currentTime + length);
            }
          before = now;
        }, 2);
        await context.resume();
        return heard.stream;
      };
    },
    [CLAPS, CLAP_SECONDS] as const,
  );

/** A sound file as samples. */
const samplesOf = (page: Page, url: string): Promise<number[]> =>
  page.evaluate(
    async ([address, rate]) => {
      const bytes = await (await fetch(address)).arrayBuffer();
      const decoded = await new OfflineAudioContext(1, 1, rate).decodeAudioData(bytes);
      return [...decoded.getChannelData(0)];
    },
    [url, RATE] as const,
  );

/** What the two players of the page give at the same time, for some seconds. */
const heardTogether = (page: Page, seconds: number): Promise<[number[], number[]]> =>
  page.evaluate(
    async ([length, rate]) => {
      type Media = HTMLMediaElement & { captureStream(): MediaStream };
      const context = new AudioContext({ sampleRate: rate });
      const merger = context.createChannelMerger(2);
      const played = [...(window as unknown as { played: Set<Media> }).played].filter(({ paused }) => !paused);
      // The voice first; it is in no leaf.
      played.sort((a, b) => Number(a.closest('.leaf') !== null) - Number(b.closest('.leaf') !== null));
      played.forEach((media, channel) =>
        context.createMediaStreamSource(media.captureStream()).connect(merger, 0, channel),
      );
      const tap = context.createScriptProcessor(2048, 2, 2);
      const channels: [number[], number[]] = [[], []];
      tap.onaudioprocess = ({ inputBuffer }) =>
        channels.forEach((samples, channel) => samples.push(...inputBuffer.getChannelData(channel)));
      merger.connect(tap).connect(context.destination);
      await context.resume();
      await new Promise((resolve) => setTimeout(resolve, length * 1000));
      await context.close();
      return channels;
    },
    [seconds, RATE] as const,
  );

/** How loud a sound is, a millisecond each. */
function loudness(samples: readonly number[]): number[] {
  const frame = RATE / 1000;
  return Array.from({ length: Math.floor(samples.length / frame) }, (_, at) =>
    samples.slice(at * frame, (at + 1) * frame).reduce((sum, sample) => sum + sample * sample, 0),
  );
}

/** By how many seconds a sound is later than another, and how alike they are then: the peak of their normalised cross-correlation. */
function lagOf(sound: readonly number[], other: readonly number[]): { lag: number; alike: number } {
  const furthest = 250;
  const [a, b] = [loudness(sound), loudness(other)];
  const until = Math.min(a.length, b.length) - furthest;
  let best = { lag: 0, alike: 0 };
  for (let shift = -furthest; shift <= furthest; shift++) {
    let [product, one, two] = [0, 0, 0];
    for (let at = furthest; at < until; at++) {
      product += a[at + shift]! * b[at]!;
      one += a[at + shift]! ** 2;
      two += b[at]! ** 2;
    }
    const alike = product / Math.sqrt(one * two || 1);
    if (alike > best.alike) best = { lag: shift / 1000, alike };
  }
  return best;
}

/** What of a voice was spoken over a performance, and what was played then. */
function alongside(
  voice: readonly number[],
  performance: readonly number[],
  performs: readonly { at: number; from: number }[],
): [number[], number[]] {
  const parts = performs.map(({ at, from }, index): [number[], number[]] => {
    const seconds = (performs[index + 1]?.at ?? voice.length / RATE) - at;
    const cut = (samples: readonly number[], start: number): number[] =>
      Array.from(
        { length: Math.round(seconds * RATE) },
        (_, sample) => samples[Math.round(start * RATE) + sample] ?? 0,
      );
    return [cut(voice, at), cut(performance, from)];
  });
  return [parts.flatMap(([spoken]) => spoken), parts.flatMap(([, played]) => played)];
}

test('a teacher speaks over a recording: both stay in time when it is kept and when it is heard', async ({
  browser,
  server,
}) => {
  const page = await enter(browser, server, TEACHER);
  await clapAlong(page);
  let performed = clapping(CLAPS);
  await page.route('**/files/0', (route) =>
    route.fulfill({ contentType: 'audio/wav', body: Buffer.from(writeWav(performed, RATE)) }),
  );
  await openDesk(page, 'Zofia Krol');
  await page.reload();
  await expect(page.getByText('Drawing the recording')).toBeHidden();

  await page.getByRole('button', { name: 'Speak over it' }).click();
  await expect(page.getByText('Talking it through')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Pause the student’s recording' })).toBeVisible();
  await page.waitForTimeout(3000);
  await page.keyboard.press('m');
  await expect(page.getByText('1 passage')).toBeVisible();
  await page.waitForTimeout(4000);
  await page.keyboard.press('l');
  const ribbon = page.locator('.ribbon').filter({ hasText: 'Talked through' });
  await expect(ribbon).toBeVisible();
  await saved(page);

  const remark = (await remarksOnServer(page)).find((one) => 'talk' in one && one.talk)! as unknown as {
    talk: { type: string; at: number; from: number }[];
    recording: { id: string; sound: { sha256: string } };
  };
  const performs = remark.talk.filter(({ type }) => type === 'perform');
  const { id, sound } = remark.recording;
  const voice = await samplesOf(page, `/api/recordings/${id}/sound/${sound.sha256}`);
  // From here on the recording is heard as it was clapped along.
  performed = clapping(await page.evaluate(() => (window as unknown as { clapped: number[] }).clapped));
  const kept = lagOf(...alongside(voice, [...performed], performs));
  expect(kept.alike).toBeGreaterThan(0.5);
  expect(Math.abs(kept.lag)).toBeLessThan(FURTHEST_APART);

  await page.reload();
  await ribbon.getByRole('button', { name: /^Play the remark/ }).click();
  await expect(page.getByRole('button', { name: 'Pause the student’s recording' })).toBeVisible();
  await page.waitForTimeout(1500);
  const heard = lagOf(...(await heardTogether(page, 4)));
  expect(heard.alike).toBeGreaterThan(0.5);
  expect(Math.abs(heard.lag)).toBeLessThan(FURTHEST_APART);
});
