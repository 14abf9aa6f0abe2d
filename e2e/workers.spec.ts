import { expect, type Page } from '@playwright/test';
import { benchReady, figure, idle, onPost, openModel, POST, RING } from './hands.ts';
import { test } from './test.ts';

/** What happens when a part of the app that runs beside the page dies, hangs, or never came up. */

const named = (page: Page, name: string) => page.workers().filter((worker) => worker.url().includes(name));

/** Closes workers from within, which no event tells of. */
const close = (page: Page, name: string) =>
  Promise.all(named(page, name).map((worker) => worker.evaluate('self.close()').catch(() => undefined)));

/** Has workers turn in circles, and waits until they do: each says so before it begins. */
async function hang(page: Page, name: string): Promise<void> {
  await page.evaluate(() => {
    const counter = window as unknown as { hanging: number };
    counter.hanging = 0;
    new BroadcastChannel('hanging').onmessage = () => counter.hanging++;
  });
  const loop = 'void setTimeout(() => { new BroadcastChannel("hanging").postMessage(1); for (;;) {} }, 10)';
  const begun = await Promise.all(
    named(page, name).map((worker) =>
      worker.evaluate(loop).then(
        () => 1,
        () => 0,
      ),
    ),
  );
  const count = begun.reduce<number>((sum, one) => sum + one, 0);
  await page.waitForFunction((count) => (window as unknown as { hanging: number }).hanging >= count, count);
}

const startedAgain = (page: Page) => page.getByRole('alert').filter({ hasText: 'was started again' });

const ACTS = [
  { key: 'd', shells: '2' },
  { key: 'Control+z', shells: '2' },
  { key: 'Control+z', shells: '1' },
  { key: 'Control+Shift+z', shells: '2' },
  { key: 's', shells: '2' },
] as const;

async function openCutPost(page: Page): Promise<void> {
  await openModel(page, 'post.obj', POST);
  await benchReady(page);
  const [x, y] = await onPost(page, RING);
  await page.mouse.move(x, y);
  await page.mouse.dblclick(x, y);
  await expect(page.getByTestId('selection')).toHaveText('4 edges');
  await page.keyboard.press('a');
  await idle(page);
  expect(await figure(page, 'shells')).toBe('2');
}

test('the document worker closed before and within every act: the project opens as it was kept', async ({
  page,
}) => {
  await openCutPost(page);
  for (const { key, shells } of ACTS) {
    await close(page, 'documentWorker');
    await expect(startedAgain(page)).toBeVisible();
    await idle(page);
    await page.keyboard.press(key);
    await idle(page);
    expect(await figure(page, 'shells')).toBe(shells);
    await expect(page.locator('.bench-saved')).toHaveText('Saved');
  }
  // In the middle of one: it is done or it is not, and the Bench goes on.
  await Promise.all([page.keyboard.press('d'), close(page, 'documentWorker')]);
  await expect(startedAgain(page)).toBeVisible();
  await idle(page);
  await page.keyboard.press('d');
  await idle(page);
  expect(await figure(page, 'shells')).toBe('2');
});

test('the document worker hangs: that is told on the Bench and on the Rack, and it is started again', async ({
  page,
}) => {
  await openCutPost(page);
  await hang(page, 'documentWorker');
  await page.keyboard.press('d');
  await expect(page.getByRole('alert').filter({ hasText: 'No answer for' })).toBeVisible();
  await page.getByRole('button', { name: 'Start it again' }).click();
  await expect(startedAgain(page)).toBeVisible();
  await idle(page);
  expect(await figure(page, 'shells')).toBe('2');
  await hang(page, 'documentWorker');
  await page.getByRole('link', { name: 'Rack' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'has not answered for' })).toBeVisible();
  await page.getByRole('button', { name: 'Start it again' }).click();
  await page.getByRole('link', { name: /post/ }).click();
  await benchReady(page);
  expect(await figure(page, 'shells')).toBe('2');
});

test('solvers closed between acts are replaced; hanging ones end when they are stopped', async ({ page }) => {
  await openCutPost(page);
  for (const { key, shells } of ACTS) {
    await close(page, 'jobWorker');
    await page.keyboard.press(key);
    await idle(page);
    expect(await figure(page, 'shells')).toBe(shells);
  }
  // What was told of a solver is not told of the document.
  await expect(startedAgain(page)).toHaveCount(0);
  await page.keyboard.press('d');
  await idle(page);
  await hang(page, 'jobWorker');
  await page.keyboard.press('s');
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByRole('button', { name: 'Stop' })).toHaveCount(0);
  await expect(page.getByText('Stopped. Nothing was changed.')).toBeVisible();
  await page.reload();
  await benchReady(page);
  expect(await figure(page, 'shells')).toBe('2');
});

test('a document that takes too long to make is cancelled, and the next file opens', async ({ page }) => {
  const withUvs = POST.replace('f 4 3 2 1', 'vt 0 0\nvt 1 0\nvt 0 1\nf 4/1 3/2 2/3 1/1');
  await openModel(page, 'post.obj', withUvs);
  await expect(page.getByRole('dialog', { name: 'Open post.obj' })).toBeVisible();
  await hang(page, 'readerWorker');
  await page.getByRole('button', { name: 'Keep UVs' }).click();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByRole('button', { name: 'Cancel' })).toHaveCount(0);
  // Two at a time: the first is opened, and the other is told of.
  const file = (name: string) => ({ name, mimeType: 'text/plain', buffer: Buffer.from(POST) });
  await page.getByLabel('Model or project file').setInputFiles([file('one.obj'), file('two.obj')]);
  await benchReady(page);
  await expect(page.getByRole('heading', { name: 'one' })).toBeVisible();
  await expect(page.getByText('One model is opened at a time: two.obj was left alone.')).toBeVisible();
});
