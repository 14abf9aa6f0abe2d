import { expect, type Page, test } from '@playwright/test';
import { at, benchReady, drawn, idle, openRack } from './hands.ts';

/** One picture of each main view, from the demo. */
const save = (page: Page, name: string) => page.screenshot({ path: `docs/screenshots/${name}.png` });

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

  await page.keyboard.press('Escape');
  await page.keyboard.press('4');
  await page.keyboard.press('b');
  await page.getByTestId('figure-stretch-l2').click();
  await page.waitForTimeout(800);
  await save(page, 'bench-stretch');

  await page.keyboard.press('Escape');
  await page.keyboard.press('5');
  await page.getByRole('button', { name: 'Pack the tile' }).click();
  await idle(page);
  await page.keyboard.press('6');
  await page.waitForTimeout(1200);
  await save(page, 'deliver');
});
