import { expect, type Page } from '@playwright/test';
import { benchReady, dome, figure, hills, idle, openModel } from './hands.ts';
import { test } from './test.ts';

/** As where a proxy leaves the headers out that let a page share memory between its threads. */
const withoutSharing = (page: Page): Promise<unknown> =>
  page.route('**/*', async (route) => {
    const response = await route.fetch();
    const headers = Object.fromEntries(
      Object.entries(response.headers()).filter(([name]) => !name.startsWith('cross-origin')),
    );
    await route.fulfill({ response, headers });
  });

test('a page that may share no memory works with copies: it unfolds, relaxes, undoes and measures alike', async ({
  page,
}) => {
  await withoutSharing(page);
  await openModel(page, 'hills.obj', hills(40));
  await benchReady(page);
  expect(await page.evaluate(() => typeof SharedArrayBuffer)).toBe('undefined');
  await page.keyboard.press('3');
  await page.keyboard.press('s');
  await idle(page);
  const unfolded = Number(await figure(page, 'stretch-l2'));
  expect(unfolded).toBeGreaterThan(1);
  await page.keyboard.press('d');
  await idle(page);
  expect(Number((await figure(page, 'stretch-l2')).split('→').pop())).toBeLessThan(unfolded);
  expect(await figure(page, 'overlaps')).toBe('0');
  // Undone and done again, it is what it was.
  const relaxed = await figure(page, 'tile-use');
  await page.keyboard.press('Control+z');
  await idle(page);
  await page.keyboard.press('Control+Shift+z');
  await idle(page);
  expect((await figure(page, 'tile-use')).split('→').pop()?.trim()).toBe(relaxed.split('→').pop()?.trim());
});

test('a solver that can hear no Stop is ended by it, and what it worked on stays as it was', async ({
  page,
}) => {
  await withoutSharing(page);
  // Large and closed enough that no machine is done before the hand is at Stop.
  await openModel(page, 'dome.obj', dome(120, 260, 2.8));
  await benchReady(page);
  await page.keyboard.press('3');
  await page.keyboard.press('s');
  await idle(page);
  const unfolded = await figure(page, 'stretch-l2');
  await page.keyboard.press('d');
  // The picture moves: nothing holds still for as long as a click usually waits.
  await page.getByRole('button', { name: 'Stop' }).click({ force: true });
  await idle(page);
  expect(await figure(page, 'stretch-l2')).toBe(unfolded);
  await page.keyboard.press('s');
  await idle(page);
  expect((await figure(page, 'stretch-l2')).split('→').pop()?.trim()).toBe(unfolded.split('→').pop()?.trim());
});
