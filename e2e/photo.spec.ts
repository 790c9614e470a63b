import sharp from 'sharp';
import { enter, expect, test } from './school.ts';

test.use({ school: 'photo' });

/** Grey quarters of a sheet, so that it can be seen which part is left and which way up it is. */
const QUARTERS = { 'upper left': 60, 'upper right': 100, 'lower left': 140, 'lower right': 180 };

async function photo(): Promise<Buffer> {
  const quarter = (tone: number) => ({
    create: { width: 200, height: 100, channels: 3 as const, background: { r: tone, g: tone, b: tone } },
  });
  return sharp({ create: { width: 400, height: 200, channels: 3, background: '#fff' } })
    .composite(
      Object.values(QUARTERS).map((tone, index) => ({
        input: quarter(tone),
        left: (index % 2) * 200,
        top: Math.floor(index / 2) * 100,
      })),
    )
    .png()
    .toBuffer();
}

test('a photographed page is cropped, rotated and made clearer before it is handed in, and can be as it was', async ({
  browser,
  server,
}) => {
  const page = await enter(browser, server, 'Ines Bettencourt');
  const work = page.locator('section.work', {
    has: page.getByRole('heading', { name: 'A place I know better than others' }),
  });
  const choose = async (): Promise<void> =>
    work.locator('input[type=file]').setInputFiles({ name: 'page.png', mimeType: 'image/png', buffer: await photo() });
  const dialog = page.getByRole('dialog', { name: 'Adjust page.png' });
  const crop = (side: string) => dialog.getByRole('slider', { name: `Crop ${side}` });

  await choose();
  await work.getByRole('button', { name: 'Crop or adjust page.png' }).click();
  await expect(crop('right')).toHaveValue('0');
  await crop('right').fill('50');
  await expect(dialog.getByText('Crop right: 50%')).toBeVisible();
  await crop('top').focus();
  await page.keyboard.press('ArrowRight');
  await expect(crop('top')).toHaveValue('1');
  await crop('top').fill('0');
  await dialog.getByRole('checkbox', { name: 'More contrast' }).check();
  await expect(dialog.getByText('Crop right: 50%')).toBeVisible();
  await dialog.getByRole('button', { name: 'Apply' }).click();
  await expect(dialog).toBeHidden();
  await expect(work.getByRole('button', { name: 'Crop or adjust page.png' })).toBeFocused();

  await work.getByRole('button', { name: 'Undo the changes to page.png' }).click();
  await expect(work.getByRole('button', { name: 'Undo the changes to page.png' })).toBeHidden();
  await expect(work.getByRole('button', { name: 'Crop or adjust page.png' })).toBeFocused();
  await work.getByRole('button', { name: 'Crop or adjust page.png' }).click();
  await expect(crop('right')).toHaveValue('0');
  await dialog.getByRole('button', { name: 'Rotate' }).click();
  // What stood on the left stands above now.
  await crop('bottom').fill('50');
  await dialog.getByRole('checkbox', { name: 'More contrast' }).check();
  await expect(crop('bottom')).toHaveValue('50');
  await dialog.getByRole('button', { name: 'Apply' }).click();
  await work.getByRole('button', { name: 'Hand in', exact: true }).click();
  await expect(work.getByText('has been handed in')).toBeVisible();

  await work.getByRole('link', { name: 'Read it' }).click();
  const picture = page.getByRole('article').getByRole('img').first();
  await expect(picture).toBeVisible();
  const address = await picture.evaluate((image: HTMLImageElement) => image.src);
  const bytes = await (await page.request.get(address)).body();
  const { data, info } = await sharp(bytes).raw().toBuffer({ resolveWithObject: true });
  expect([info.width, info.height]).toEqual([200, 200]);
  const tone = (x: number, y: number): number => data[(y * info.width + x) * info.channels]!;
  // Turned clockwise, the lower left quarter is on the left. What is lightest and darkest of the rest has become white and black.
  expect([tone(50, 100), tone(150, 100)]).toEqual([255, 0]);
});
