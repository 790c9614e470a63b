import type { Page } from '@playwright/test';
import {
  enter,
  expect,
  goOnSpeaking,
  openDesk,
  play,
  remarksOnServer,
  ribbonAbout,
  saved,
  select,
  speak,
  TEACHER,
  test,
} from './school.ts';

test.use({ school: 'voice' });

/**
 * Replaces the microphone by one that speaks from the very moment of the key: it answers `keydown` before the desk does, with
 * a tone that steps through twelve pitches.
 */
async function speakWithTheKey(page: Page): Promise<void> {
  await page.addInitScript(() => {
    // Longer than the pieces in which a recording is encoded.
    const STEP = 0.4;
    navigator.mediaDevices.getUserMedia = async () => {
      const context = new AudioContext();
      const out = context.createMediaStreamDestination();
      const oscillator = context.createOscillator();
      const gain = context.createGain();
      gain.gain.value = 0;
      oscillator.connect(gain).connect(out);
      oscillator.start();
      await context.resume();
      window.addEventListener(
        'keydown',
        ({ key, repeat }) => {
          if (key !== ' ' || repeat) return;
          const now = context.currentTime;
          for (let step = 0; step < 12; step++)
            oscillator.frequency.setValueAtTime(300 + 150 * step, now + step * STEP);
          gain.gain.setValueAtTime(0.4, now);
          gain.gain.setValueAtTime(0, now + 12 * STEP);
        },
        { capture: true },
      );
      return out.stream;
    };
  });
  await page.reload();
}

/** How many seconds each of the twelve pitches is heard in a recording. */
const secondsOfPitches = (page: Page, url: string): Promise<number[]> =>
  page.evaluate(async (address) => {
    const rate = 48_000;
    const bytes = await (await fetch(address)).arrayBuffer();
    const samples = (await new OfflineAudioContext(1, 1, rate).decodeAudioData(bytes)).getChannelData(0);
    const frame = 480;
    const heard = new Array<number>(12).fill(0);
    for (let at = 0; at + frame <= samples.length; at += frame) {
      // Goertzel, “An algorithm for the evaluation of finite trigonometric series”, 1958.
      const powers = heard.map((_, step) => {
        const turn = 2 * Math.cos((2 * Math.PI * (300 + 150 * step)) / rate);
        let [one, two] = [0, 0];
        for (let i = at; i < at + frame; i++) [one, two] = [samples[i]! + turn * one - two, one];
        return one * one + two * two - turn * one * two;
      });
      const most = Math.max(...powers);
      if (most > 50) heard[powers.indexOf(most)]! += frame / rate;
    }
    return heard;
  }, url);

const soundOf = async (page: Page, words: string): Promise<string> => {
  const remark = (await remarksOnServer(page)).find(({ anchor }) => anchor.quote?.exact.startsWith(words))!;
  const { id, sound } = remark.recording!;
  return `/api/recordings/${id}/sound/${sound.sha256}`;
};

test('speech that starts at the very moment of the key is there in full', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await speakWithTheKey(page);
  await openDesk(page, 'Eleni Marathou');
  // The browser has asked; the microphone is warm from now on.
  await page.getByRole('button', { name: 'Record a remark' }).click();
  await goOnSpeaking(page, 0.7);
  await page.getByRole('button', { name: 'Throw away' }).click();
  await select(page, 'That is what I thought when I sat down');
  await speak(page, 5.2);
  await expect(ribbonAbout(page, 'That is what I thought')).toBeVisible();
  await saved(page);
  const id = await ribbonAbout(page, 'That is what I thought').getAttribute('data-remark');
  // Both as it is heard and as it was spoken: the tap and the delay line each keep the first syllable.
  for (const url of [await soundOf(page, 'That is what I thought'), `/api/recordings/${id}/original`]) {
    const pitches = await secondsOfPitches(page, url);
    for (const seconds of pitches) expect(seconds).toBeGreaterThan(0.34);
  }
});

test('what was thrown away can be brought back for a few seconds', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Farid Noorzai');
  await select(page, 'for three years');
  await page.keyboard.down('Space');
  await goOnSpeaking(page, 1.2);
  await page.keyboard.press('Escape');
  await page.keyboard.up('Space');
  await expect(page.getByText('The recording was thrown away.')).toBeVisible();
  await expect(ribbonAbout(page, 'for three years')).toHaveCount(0);
  await page.getByRole('button', { name: 'Bring it back' }).click();
  await play(ribbonAbout(page, 'for three years'));
});

test('a pause is not part of the recording', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Kateryna Bilyk');
  await select(page, 'I had never left any.');
  await page.getByRole('button', { name: 'Record a remark' }).click();
  await expect(page.getByRole('timer')).toContainText('0:01');
  await page.keyboard.press('Enter');
  await expect(page.getByText('paused', { exact: true })).toBeVisible();
  await page.waitForTimeout(3000);
  await page.getByRole('button', { name: 'Go on recording' }).click();
  await expect(page.getByRole('timer')).toContainText('0:02');
  await page.getByRole('button', { name: 'Stop recording' }).click();
  const ribbon = ribbonAbout(page, 'I had never left');
  await expect(ribbon).toBeVisible();
  await saved(page);
  const remark = (await remarksOnServer(page)).find(({ anchor }) => anchor.quote?.exact === 'I had never left any.');
  expect(remark!.recording!.sound.duration).toBeLessThan(4);
});

test('a recording is cut, undone and cut again; the original stays', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Hoku Kalani');
  await select(page, 'They are shiny');
  await speak(page, 3);
  const ribbon = ribbonAbout(page, 'They are shiny');
  await saved(page);
  const before = await soundOf(page, 'They are shiny');
  await page.keyboard.press('e');
  const editor = ribbon.getByRole('region', { name: 'Edit the sound' });
  await expect(editor.getByText('will be heard')).toBeVisible();
  const end = editor.getByLabel('to', { exact: true });
  const full = await end.inputValue();
  await end.fill('1.5');
  await end.press('Enter');
  await editor.getByRole('button', { name: 'Undo' }).click();
  await expect(end).toHaveValue(full);
  await editor.getByRole('button', { name: 'Redo' }).click();
  await expect(end).toHaveValue('1.50');
  await editor.getByRole('button', { name: 'Keep' }).click();
  await expect(editor).toHaveCount(0);
  await saved(page);
  const after = await soundOf(page, 'They are shiny');
  expect(after).not.toBe(before);
  await play(ribbon);

  await page.keyboard.press('Control+z');
  await expect(page.getByText('Undone: edit of the sound.')).toBeVisible();
  await saved(page);
  expect(await soundOf(page, 'They are shiny')).toBe(before);
});

test('a network that breaks in the middle of an upload makes one remark, and the ribbon says how it is', async ({
  browser,
  server,
}) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Ines Bettencourt');
  let broken = 0;
  await page.route('**/api/submissions/*/remarks/*', async (route) => {
    if (broken++ > 0) return route.continue();
    // The server has taken it, but its answer never arrives.
    await route.fetch();
    await route.abort('connectionreset');
  });
  await select(page, 'four of them');
  await speak(page, 1.5);
  const ribbon = ribbonAbout(page, 'four of them');
  await expect(ribbon.getByText('waiting for the network')).toBeVisible();
  await play(ribbon);
  await expect(ribbon.getByText('saved', { exact: true })).toBeVisible({ timeout: 15_000 });
  expect(broken).toBeGreaterThan(1);
  await page.reload();
  await expect(ribbon).toHaveCount(1);
});

test('a camera note has a picture and is played in the margin', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Jomo Wekesa');
  await page.getByRole('button', { name: 'Other kinds of remark' }).click();
  await page.getByText('Camera note').click();
  await expect(page.getByRole('timer')).toContainText('0:02');
  await page.getByRole('button', { name: 'Stop recording' }).click();
  const ribbon = ribbonAbout(page, 'the whole work');
  await expect(ribbon).toContainText('Camera note');
  await saved(page);
  await page.reload();
  await play(ribbon);
  await expect
    .poll(() => ribbon.locator('video').evaluate((video: HTMLVideoElement) => video.videoWidth))
    .toBeGreaterThan(0);
});

test('the microphone is checked at first use, and says how it hears', async ({ browser, server }) => {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await page.goto(`${server.address}/sign-in`);
  await page.getByRole('button', { name: TEACHER, exact: true }).click();
  await openDesk(page, 'Liang Meixiu');
  const panel = page.getByRole('complementary', { name: 'Microphone' });
  await panel.getByRole('button', { name: 'Try it for three seconds' }).click();
  await expect(panel.getByText('You sound clear.')).toBeVisible();
  await expect(panel.getByRole('button', { name: 'Hear it' })).toBeVisible();
  await panel.getByRole('checkbox', { name: /Count 3/ }).check();
  await panel.getByRole('button', { name: 'Close: Microphone' }).click();
  await expect(page.getByRole('complementary', { name: 'Scores' })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('complementary', { name: 'Scores' })).toBeVisible();
  // The countdown comes first.
  await page.getByRole('button', { name: 'Record a remark' }).click();
  await expect(page.getByRole('timer')).toHaveCount(0);
  await expect(page.getByRole('timer')).toBeVisible({ timeout: 5000 });
});
