import { readFile } from 'node:fs/promises';
import { expect, type Page } from '@playwright/test';
import { benchReady, figure, idle, marked, openEmptyRack, openModel, POST } from './hands.ts';
import { test } from './test.ts';

/** Goes on by Tab until a control of this name has the focus. */
async function tabTo(page: Page, name: RegExp, way = 'Tab'): Promise<void> {
  for (let i = 0; i < 80; i++) {
    const here = (await page.evaluate(
      "(document.activeElement.getAttribute('aria-label') ?? '') + ' ' + document.activeElement.textContent",
    )) as string;
    if (name.test(here.trim())) return;
    await page.keyboard.press(way);
  }
  throw new Error(`Tab never came to ${name}`);
}

test('from the Rack to the exported file by keys alone', async ({ page }) => {
  // Asked for early: the browser takes a while to hand choosers over instead of showing them.
  const chooser = page.waitForEvent('filechooser');
  await openEmptyRack(page);
  await tabTo(page, /^Open a model or project/);
  await page.keyboard.press('Enter');
  await (await chooser).setFiles({
    name: 'post.obj',
    mimeType: 'application/octet-stream',
    buffer: Buffer.from(POST),
  });
  await benchReady(page);
  await expect(page.locator('.board-empty')).toBeVisible();

  // Tab leads to the Model; arrows walk from edge to edge, and what they come to lights up.
  await page.keyboard.press('Tab');
  await expect(page.getByTestId('model')).toBeFocused();
  const selection = page.getByTestId('selection');
  await page.keyboard.press('ArrowRight');
  await expect.poll(() => marked(page, 'model')).toBeGreaterThan(20);
  for (const key of [
    'ArrowUp',
    'ArrowDown',
    'ArrowDown',
    'ArrowRight',
    'ArrowUp',
    'ArrowLeft',
    'ArrowDown',
  ]) {
    await page.keyboard.press('Control+Enter');
    await expect(selection).toHaveText(/edge/);
    if ((await selection.textContent()) === '4 edges') break;
    await page.keyboard.press(key);
    await idle(page);
  }
  await expect(selection).toHaveText('4 edges');
  await page.keyboard.press('a');
  await idle(page);
  expect(await figure(page, 'shells')).toBe('2');

  // From the Model to the Board, and on to the details: Tab is not caught.
  await page.keyboard.press('Tab');
  await expect(page.getByTestId('board')).toBeFocused();
  await page.keyboard.press('Tab');
  await expect(page.getByTestId('board')).not.toBeFocused();
  await expect(page.getByTestId('model')).not.toBeFocused();

  await page.keyboard.press('6');
  await page.getByAltText(/^Template/).waitFor();
  const saved = page.waitForEvent('download');
  await tabTo(page, /^Export OBJ/, 'Shift+Tab');
  await page.keyboard.press('Enter');
  const text = await readFile(await (await saved).path(), 'utf8');
  expect(text).toMatch(/^vt /m);
  expect(text).toMatch(/^f \d+\/\d+/m);
});

test('places, turns and densities of shells are typed, and the Board keeps them from then on', async ({
  page,
}) => {
  await openModel(page, 'post.obj', POST);
  await benchReady(page);
  // The seams are shown first, and cut by a key.
  await page.getByRole('button', { name: 'Open closed pieces' }).click();
  await expect(page.getByText(/A cuts them/)).toBeVisible();
  await page.keyboard.press('a');
  await idle(page);
  await expect(page.getByRole('button', { name: 'Laid out afresh' })).toBeVisible();
  await page.locator('.details-table .ant-table-row').first().click();
  const field = (name: string) => page.getByLabel(name);
  const type = async (name: string, value: string) => {
    await field(name).fill(value);
    await field(name).press('Enter');
    await idle(page);
  };
  await type('Left, u', '0.25');
  await expect(field('Left, u')).toHaveValue('0.25');
  await expect(page.getByText('From now on shells keep their places.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Places kept' })).toBeVisible();
  await type('Lower, v', '0.125');
  await expect(field('Lower, v')).toHaveValue('0.125');
  await type('Density, px a unit', '200');
  expect(Number(await field('Density, px a unit').inputValue())).toBeCloseTo(200, 1);
  const before = Number(await field('Left, u').inputValue());
  await type('Turn by, °', '90');
  await type('Turn by, °', '-90');
  expect(Number(await field('Left, u').inputValue())).toBeCloseTo(before, 3);
  // Unfolded anew it stays where it was put; laid out afresh it does not.
  await page.keyboard.press('Escape');
  await page.locator('.details-table .ant-table-row').first().click();
  await page.keyboard.press('s');
  await idle(page);
  expect(Number(await field('Left, u').inputValue())).toBeCloseTo(before, 2);
  await page.getByRole('button', { name: 'Places kept' }).click();
  await idle(page);
  expect(await figure(page, 'overlaps')).toBe('0');
  await expect(page.getByRole('button', { name: 'Laid out afresh' })).toBeVisible();
  expect(Number(await field('Left, u').inputValue())).toBeLessThan(0.02);
});

test('a model that may lie on its back is asked about by four pictures, and stays as it was stood', async ({
  page,
}) => {
  // Taller along z than along y.
  const lying = POST.replace(/^v (\S+) (\S+) (\S+)/gm, (_, x, y, z) => `v ${x} ${-z} ${y}`);
  await openModel(page, 'lying.obj', lying);
  const asked = page.getByRole('group', { name: /stands upright and looks at you/ });
  await expect(asked.getByRole('radio')).toHaveCount(4);
  await expect(asked.getByRole('radio', { name: 'z up, y to the back' })).toBeChecked();
  await asked.getByText('z up, y to the front').click();
  await page.getByRole('button', { name: 'Open it so' }).click();
  await benchReady(page);
  const picture = () => page.getByTestId('model').screenshot();
  await expect(page.locator('html')).toHaveAttribute('data-occlusion', 'true');
  const before = await picture();
  await page.keyboard.press('1');
  await page.getByRole('button', { name: 'Turn its front' }).click();
  await idle(page);
  await expect(page.locator('.bench-last')).toHaveText(
    'Stand the model up along z, and turn it to the front',
  );
  await expect.poll(async () => (await picture()).equals(before)).toBe(false);
  // What is pointed at is what is picked, standing too.
  const box = (await page.getByTestId('model').boundingBox()) as {
    x: number;
    y: number;
    width: number;
    height: number;
  };
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await expect.poll(() => marked(page, 'model')).toBeGreaterThan(20);
  const up = page.getByRole('radiogroup', { name: 'Which axis points up' });
  await expect(up.getByRole('radio', { name: 'z' })).toBeChecked();
  await up.getByText('y', { exact: true }).click();
  await idle(page);
  await expect(up.getByRole('radio', { name: 'y' })).toBeChecked();
  await page.keyboard.press('Control+z');
  await idle(page);
  await expect(up.getByRole('radio', { name: 'z' })).toBeChecked();
});
