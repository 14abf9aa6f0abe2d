import { readFileSync, writeFileSync } from 'node:fs';
import { expect, type Page, test } from '@playwright/test';
import { at, benchReady, drawn, fromMenu, idle, openModel, openRack } from './hands.ts';

/** One picture of each main view, from the demo. */
const save = (page: Page, name: string) => page.screenshot({ path: `docs/screenshots/${name}.png` });

/** The demo projects, as they look on the Rack: drawn by the Bench, kept for those who open the Rack for the first time. */
test('demo pictures', async ({ page }) => {
  test.setTimeout(300_000);
  await openRack(page);
  await page.getByRole('button', { name: /^Bring the mud snail/ }).click();
  await expect(page.getByRole('link', { name: /Mud snail/ })).toBeVisible({ timeout: 60_000 });
  for (const name of [
    'Mud snail',
    'Toad ferryman',
    'Heron hood',
    'Gourd lantern',
    'Mooring post',
    'Reed punt',
    'Punt thwart',
  ]) {
    await page.getByRole('link', { name: new RegExp(name) }).click();
    await benchReady(page);
    await expect(page.locator('html')).toHaveAttribute('data-occlusion', 'true', { timeout: 60_000 });
    await page.waitForTimeout(4000);
    await page.getByRole('link', { name: 'Rack' }).click();
    const image = page.getByRole('link', { name: new RegExp(name) }).locator('img');
    await image.waitFor();
    await page.waitForTimeout(1500);
    const data = await image.evaluate((img: HTMLImageElement) => {
      const canvas = document.createElement('canvas');
      [canvas.width, canvas.height] = [img.naturalWidth, img.naturalHeight];
      canvas.getContext('2d')?.drawImage(img, 0, 0);
      return canvas.toDataURL('image/webp', 0.9);
    });
    const file = `demo/pictures/${name.toLowerCase().replaceAll(' ', '-')}.webp`;
    writeFileSync(file, Buffer.from(data.split(',')[1], 'base64'));
  }
});

test('pictures', async ({ page }) => {
  await openRack(page);
  await page.waitForTimeout(500);
  await save(page, 'rack');

  await page.getByRole('link', { name: /Reed punt/ }).click();
  await benchReady(page);
  await page.keyboard.press('1');
  await page.getByText(/open crack points/).waitFor();
  await page.getByRole('button', { name: 'Show' }).nth(2).click();
  await page.mouse.move(500, 700);
  await page.waitForTimeout(800);
  await save(page, 'intake');
  await page.getByRole('button', { name: 'Report' }).click();
  await page.waitForTimeout(1500);
  await save(page, 'health-report');
  await page.getByRole('link', { name: 'Rack' }).click();

  await page.getByRole('link', { name: /Toad ferryman/ }).click();
  await benchReady(page);
  await page.waitForTimeout(1500);
  // The shoulder: a loop round the foreleg, picked and about to be cut.
  const [x, y] = await at(page, 'model', 0.645, 0.66);
  await page.mouse.move(x, y);
  await page.waitForTimeout(300);
  await page.mouse.dblclick(x, y);
  await expect(page.getByTestId('selection')).toHaveText(/edges/);
  await page.getByText(/^This cut:/).waitFor();
  await drawn(page);
  await save(page, 'bench-cutting');

  // A route over the back of the head, and one proposed set of seams.
  await page.keyboard.press('Escape');
  await page.keyboard.press('w');
  await page.mouse.click(...(await at(page, 'model', 0.45, 0.45)));
  await page.waitForTimeout(4000);
  await page.mouse.click(...(await at(page, 'model', 0.62, 0.55)));
  await page.waitForTimeout(600);
  await page.mouse.move(...(await at(page, 'model', 0.75, 0.52)));
  await page.waitForTimeout(1500);
  await drawn(page);
  await save(page, 'route');
  await page.keyboard.press('Escape');
  await page.keyboard.press('q');

  await page.keyboard.press('Escape');
  await page.keyboard.press('4');
  await page.keyboard.press('b');
  await page.getByTestId('figure-stretch-l2').click();
  await page.waitForTimeout(800);
  await save(page, 'bench-stretch');
  await page.keyboard.press('Escape');
  await page.keyboard.press('f');
  await page.getByRole('button', { name: 'Frame the tile' }).click();
  // Past the other maps, to none.
  for (let i = 0; i < 5; i++) await page.keyboard.press('b');
  await page.keyboard.press('b');
  await page.keyboard.press('v');
  await page.keyboard.press('k');
  await page.waitForTimeout(1500);
  await drawn(page);
  await save(page, 'ellipses');
  await page.keyboard.press('k');
  await page.keyboard.press('v');
  await fromMenu(page, 'Which checker', 'Gingham');

  await page.keyboard.press('Escape');
  await page.keyboard.press('5');
  await page.getByText('Tiles: 2048 px').click();
  await page.getByRole('button', { name: 'Pack the tile' }).click();
  await idle(page);
  await drawn(page);
  await save(page, 'arrange');
  await page.keyboard.press('6');
  await page.waitForTimeout(1200);
  await save(page, 'deliver');
});

test('a proposal', async ({ page }) => {
  const toad = readFileSync('packages/app/public/demo/toad-ferryman.obj');
  await openModel(page, 'toad-ferryman.obj', toad);
  await benchReady(page);
  await page.getByText('Proposed seams').click();
  await page.getByRole('button', { name: 'Propose seams for all' }).click();
  await page.getByText('Discard').waitFor({ timeout: 90_000 });
  await expect(page.locator('html')).toHaveAttribute('data-occlusion', 'true', { timeout: 60_000 });
  await drawn(page);
  await page.getByText(/^This cut, relaxed/).waitFor();
  await save(page, 'proposal');
  await page.getByRole('button', { name: /^Cut \d+ edges$/ }).click();
  await expect(page.getByText('kept from lying on itself')).toBeVisible({ timeout: 90_000 });
  await idle(page);
  await save(page, 'hide');
});

test('pins and a stay', async ({ page }) => {
  await openRack(page);
  await page.getByRole('link', { name: /Toad ferryman/ }).click();
  await benchReady(page);
  await page.keyboard.press('3');
  await page.keyboard.press('s');
  await idle(page);
  await page.getByRole('button', { name: /^Relax/ }).click();
  await idle(page);
  await page.mouse.dblclick(...(await at(page, 'model', 0.47, 0.42)));
  await expect(page.getByTestId('selection')).toHaveText(/edges/);
  await page.keyboard.press('y');
  await expect(page.locator('header')).toContainText('Make a stay');
  await idle(page);
  await page.keyboard.press('Escape');
  await page.keyboard.press('p');
  for (const [x, y] of [
    [0.18, 0.5],
    [0.66, 0.5],
    [0.45, 0.69],
  ] as const) {
    await page.mouse.click(...(await at(page, 'board', x, y)));
    await page.waitForTimeout(700);
    await idle(page);
  }
  const [x, y] = await at(page, 'board', 0.66, 0.5);
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let i = 1; i <= 6; i++) {
    await page.mouse.move(x + 9 * i, y - 4 * i);
    await page.waitForTimeout(500);
  }
  await expect(page.locator('html')).toHaveAttribute('data-occlusion', 'true', { timeout: 60_000 });
  await drawn(page);
  await save(page, 'pins');
  await page.mouse.up();
});

test('patches, a ghost and darts', async ({ page }) => {
  await openRack(page);
  await page.getByRole('link', { name: /Heron hood/ }).click();
  await benchReady(page);
  await page.keyboard.press('2');
  await page.getByText('Symmetry', { exact: true }).click();
  await page.getByRole('combobox', { name: 'Symmetry' }).click();
  await page.getByTitle('Mirror plane, found').click();
  await page.getByText(/^Mirrored across/).waitFor();
  await page.locator('.ant-collapse-title', { hasText: 'Patches' }).click();
  const stroke = async (...places: readonly (readonly [number, number])[]): Promise<void> => {
    await page.getByRole('button', { name: 'Paint a new patch' }).click();
    await page.mouse.move(...(await at(page, 'model', ...places[0])));
    await page.mouse.down();
    for (const place of places.slice(1))
      await page.mouse.move(...(await at(page, 'model', ...place)), { steps: 12 });
    await page.mouse.up();
    await idle(page);
  };
  await stroke([0.1, 0.63], [0.25, 0.56], [0.4, 0.5]);
  await stroke([0.56, 0.42], [0.63, 0.45]);
  await stroke([0.66, 0.36], [0.74, 0.34]);
  await page.getByRole('button', { name: 'Select their borders' }).click();
  await page.mouse.move(...(await at(page, 'model', 0.9, 0.9)));
  await page.waitForTimeout(1500);
  await drawn(page);
  await save(page, 'patches');

  // What the cut that helps most would bring, before it is made.
  await page.getByRole('link', { name: 'Rack' }).click();
  await page.getByRole('link', { name: /Toad ferryman/ }).click();
  await benchReady(page);
  await page.keyboard.press('2');
  const details = page.getByRole('complementary', { name: 'Details' });
  await details.getByRole('button', { name: 'Select them' }).click();
  await page.getByText(/^This cut:/).waitFor();
  await drawn(page);
  await save(page, 'ghost');
  await page.keyboard.press('Escape');

  await page.keyboard.press('e');
  await page.mouse.click(...(await at(page, 'model', 0.56, 0.44)));
  await page.locator('.dart-list li').first().waitFor({ timeout: 60_000 });
  await page.getByText(/^This cut:/).waitFor();
  await page.waitForTimeout(1000);
  await drawn(page);
  await save(page, 'dart');
});

test('trials, findings, a projection and the hand', async ({ page }) => {
  test.setTimeout(300_000);
  await openRack(page);
  await page.getByRole('link', { name: /Toad ferryman/ }).click();
  await benchReady(page);
  await expect(page.locator('html')).toHaveAttribute('data-occlusion', 'true', { timeout: 60_000 });
  await page.keyboard.press('3');
  await page.keyboard.press('j');
  await page.getByText(/would be mirrored/).waitFor();
  await page.waitForTimeout(1500);
  await drawn(page);
  await save(page, 'projection');
  await page.keyboard.press('q');

  await page.keyboard.press('s');
  await idle(page);
  await page.keyboard.press('4');
  await page.getByRole('region', { name: 'Findings' }).getByRole('button', { name: 'Show' }).first().click();
  await page.mouse.move(...(await at(page, 'model', 0.45, 0.5)));
  await page.waitForTimeout(1500);
  await drawn(page);
  await save(page, 'findings');
  await page.keyboard.press('Escape');
  await page.keyboard.press('f');
  await page.getByRole('button', { name: 'Frame the tile' }).click();

  await page.keyboard.press('3');
  await page.getByRole('button', { name: /^Relax/ }).click();
  await idle(page);
  await page.keyboard.press('Shift+C');
  await page.getByText(/A is better on/).waitFor();
  await page.getByRole('region', { name: 'Trials compared' }).getByText('Area', { exact: true }).click();
  await page.waitForTimeout(2500);
  await save(page, 'trials');
  await page.keyboard.press('Escape');

  await page.keyboard.press('b');
  await page.keyboard.press('h');
  await page.mouse.move(...(await at(page, 'board', 0.45, 0.62)));
  await page.mouse.down();
  await page.waitForTimeout(700);
  await page.mouse.move(...(await at(page, 'board', 0.54, 0.6)), { steps: 12 });
  await page.waitForTimeout(1200);
  await drawn(page);
  await save(page, 'brush');
  await page.mouse.up();
});
