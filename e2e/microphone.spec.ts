import { chromium, type Browser } from '@playwright/test';
import config, { FAKE_MICROPHONE } from '../playwright.config.ts';
import {
  enter,
  expect,
  goOnSpeaking,
  openDesk,
  play,
  ribbonAbout,
  saved,
  select,
  speak,
  TEACHER,
  test,
} from './school.ts';

const PASSAGE = 'That is what I thought when I sat down';

/** A browser with only some of the switches that simulate a microphone. */
async function withBrowser(switches: string[], use: (browser: Browser) => Promise<void>): Promise<void> {
  const options = config.use!.launchOptions!;
  const args = [...options.args!.filter((arg) => !FAKE_MICROPHONE.includes(arg)), ...switches];
  const browser = await chromium.launch({ ...options, args });
  try {
    await use(browser);
  } finally {
    await browser.close();
  }
}

test.use({ school: 'microphone' });

test('without any microphone the practice microphone speaks, and its sentence is transcribed', async ({ server }) => {
  await withBrowser([], async (browser) => {
    const page = await enter(browser, server, TEACHER);
    await openDesk(page, 'Eleni Marathou');
    await select(page, PASSAGE);
    await page.getByRole('button', { name: 'Record a remark' }).click();
    await goOnSpeaking(page, 2.8);
    await page.getByRole('button', { name: 'Stop recording' }).click();
    const ribbon = ribbonAbout(page, PASSAGE);
    await expect(ribbon).toContainText('This sentence tells');
    await expect(ribbon).toContainText('draft by Practice microphone, not read yet');
    await expect(ribbon).not.toContainText('for the shore');
    await expect(page.getByRole('button', { name: /Practice microphone/ })).toBeVisible();
    await play(ribbon);
  });
});

test('a refused microphone is told with what to do, and nothing is made up', async ({ server }) => {
  await withBrowser(['--use-fake-device-for-media-stream', '--deny-permission-prompts'], async (browser) => {
    const page = await enter(browser, server, TEACHER);
    await openDesk(page, 'Farid Noorzai');
    await page.keyboard.press('Space');
    await expect(page.getByText('was not allowed to use the microphone. Allow it in the address bar')).toBeVisible();
    await expect(page.getByText('You have not said anything yet.')).toBeVisible();
  });
});

test('a tap on the key is no recording', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  // On a busy machine the encoder begins long after the key was let go.
  await page.addInitScript(() => {
    const { start } = MediaRecorder.prototype;
    MediaRecorder.prototype.start = function (this: MediaRecorder, slice) {
      setTimeout(() => start.call(this, slice), 400);
    };
  });
  await page.reload();
  await openDesk(page, 'Farid Noorzai');
  await speak(page, 1);
  await expect(ribbonAbout(page, 'the whole work')).toBeVisible();
  await select(page, 'for three years');
  // Without waiting in between: on a busy machine a key that is pressed is held for longer than a tap.
  await Promise.all([page.keyboard.down('Space'), page.keyboard.up('Space')]);
  await expect(page.getByText('Nothing was recorded. Hold the key while you speak')).toBeVisible();
  await expect(ribbonAbout(page, 'for three years')).toHaveCount(0);
});

test('Escape throws a recording away', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Hoku Kalani');
  await page.keyboard.down('Space');
  await goOnSpeaking(page, 0.8);
  await page.keyboard.press('Escape');
  await page.keyboard.up('Space');
  await expect(page.getByRole('timer')).toBeHidden();
  await expect(page.getByText('You have not said anything yet.')).toBeVisible();
});

test('unplugged in the middle, what was said is kept', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await page.addInitScript(() => {
    const open = navigator.mediaDevices.getUserMedia.bind(navigator.mediaDevices);
    navigator.mediaDevices.getUserMedia = async (wanted) => {
      const stream = await open(wanted);
      // A device that goes away ends its track; stop() alone does not tell.
      Object.assign(window, {
        unplug: () => stream.getTracks().forEach((track) => (track.stop(), track.dispatchEvent(new Event('ended')))),
      });
      return stream;
    };
  });
  await page.reload();
  await openDesk(page, 'Ines Bettencourt');
  await select(page, 'four of them');
  await page.keyboard.down('Space');
  await goOnSpeaking(page, 1.5);
  await page.evaluate(() => (window as unknown as { unplug: () => void }).unplug());
  await expect(ribbonAbout(page, 'four of them')).toBeVisible();
  await expect(page.getByText('The microphone was unplugged. What you had said is kept.')).toBeVisible();
  await page.keyboard.up('Space');
  await play(ribbonAbout(page, 'four of them'));
  // Plugged in again, it works again.
  await select(page, 'I had expected a story');
  await speak(page, 1);
  await expect(ribbonAbout(page, 'I had expected')).toBeVisible();
});

test('what is said while the server is away is kept in the browser and sent later', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Jomo Wekesa');
  await server.kill();
  await select(page, 'What I saw is the track.');
  await speak(page, 1.2);
  const ribbon = ribbonAbout(page, 'What I saw is the track.');
  await expect(ribbon).toBeVisible();
  await expect(page.getByText('No connection: kept here, sent later')).toBeVisible();
  await play(ribbon);
  await page
    .getByRole('radio', { name: /Strong/ })
    .first()
    .check();
  await expect(page.getByRole('button', { name: 'Return', exact: true })).toBeVisible();

  await server.start();
  await expect(page.getByText('Saved', { exact: true })).toBeVisible({ timeout: 30_000 });
  await page.reload();
  await play(ribbonAbout(page, 'What I saw is the track.'));
  await expect(page.getByRole('radio', { name: /Strong/ }).first()).toBeChecked();
});

test('a page that is closed before all was sent sends it at the next visit', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Kateryna Bilyk');
  const desk = page.url();
  await page.route('**/api/submissions/*/remarks/*', (route) => route.abort());
  await select(page, 'I had never left any.');
  await speak(page, 1);
  await expect(page.getByText('No connection')).toBeVisible();
  await page.close();

  const next = await page.context().newPage();
  await next.goto(desk);
  await expect(ribbonAbout(next, 'I had never left any.')).toBeVisible();
  await saved(next);
  await play(ribbonAbout(next, 'I had never left any.'));
});

test('whoever goes on while speaking leaves the remark with the work it is about', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Dagny Holmqvist');
  await select(page, 'hardly any sand');
  await page.keyboard.down('Space');
  await goOnSpeaking(page, 1);
  await page.getByRole('link', { name: 'Next student' }).click();
  await expect(page.getByText('4 of 10')).toBeVisible();
  await page.keyboard.up('Space');
  await saved(page);
  await expect(ribbonAbout(page, 'hardly any sand')).toHaveCount(0);
  await page.getByRole('link', { name: 'Previous student' }).click();
  await play(ribbonAbout(page, 'hardly any sand'));
});

test('an answer that was cut short is offered again, and is not sent unasked', async ({ browser, server }) => {
  const page = await enter(browser, server, 'Amaru Quispe');
  await page.getByRole('link', { name: 'Open your feedback' }).click();
  await page.locator('mark', { hasText: 'The reason is obvious.' }).click();
  const ribbon = ribbonAbout(page, 'The reason is obvious');
  await ribbon.getByRole('button', { name: 'Speak an answer' }).click();
  await page.waitForTimeout(1500);
  await page.getByRole('link', { name: 'Your work', exact: true }).first().click();
  await page.getByRole('link', { name: 'Open your feedback' }).click();
  await expect(ribbon).toBeVisible();
  await expect(ribbon.getByRole('list', { name: 'Answers' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Send it as your answer' }).click();
  await expect(ribbon.getByRole('button', { name: 'Play the answer of Amaru Quispe' })).toBeVisible();
});

test('a page that dies in the middle of a sentence loses at most the last second', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Liang Meixiu');
  const desk = page.url();
  await select(page, 'A cast is not a worm.');
  await page.keyboard.down('Space');
  await goOnSpeaking(page, 3.5);
  await page.close();

  const next = await page.context().newPage();
  await next.goto(desk);
  await next.getByRole('region', { name: 'Interrupted recording' }).getByRole('button', { name: 'Keep it' }).click();
  const ribbon = ribbonAbout(next, 'A cast is not a worm.');
  await expect(ribbon).toContainText(/0:0[234]/);
  await play(ribbon);
  await saved(next);
  await next.reload();
  await expect(ribbon).toBeVisible();
  await expect(next.getByRole('region', { name: 'Interrupted recording' })).toHaveCount(0);
});
