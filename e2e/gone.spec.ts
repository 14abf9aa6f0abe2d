import { cpSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type ServerType, serve } from '@hono/node-server';
import { chromium, expect, type Page } from '@playwright/test';
import { createApp } from '../packages/server/src/app.ts';
import { chromiumLaunch } from '../playwright.config.ts';
import { benchReady, download, figure, idle, openModel, POST } from './hands.ts';
import { test } from './test.ts';

/** What happens when something round the page is gone: its server, its build, its store, its WebGL. */

const BUILD = join(import.meta.dirname, '../packages/app/dist');

/** A server of its own over a build, by default the one that is tested. */
async function served(folder = BUILD, port = 0): Promise<{ readonly url: string; end(): Promise<void> }> {
  const server: ServerType = serve({ fetch: createApp(folder).fetch, hostname: '127.0.0.1', port });
  await new Promise((resolve) => server.once('listening', resolve));
  const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const end = () =>
    new Promise<void>((resolve) => {
      server.close(() => resolve());
      if ('closeAllConnections' in server) server.closeAllConnections();
    });
  return { url, end };
}

/** A copy of the build that can be changed. */
function copiedBuild(): string {
  const folder = mkdtempSync(join(tmpdir(), 'hem-build-'));
  cpSync(BUILD, folder, { recursive: true, filter: (path) => !/\/demo(\/|$)|\.(br|gz)$/.test(path) });
  return folder;
}

const leaveOut = (folder: string, name: string) => {
  for (const file of readdirSync(join(folder, 'assets')))
    if (file.startsWith(name)) rmSync(join(folder, 'assets', file));
};

const open = async (page: Page, url: string): Promise<void> => {
  await page.addInitScript("localStorage.setItem('blunt-hem-demos-added', '1')");
  await page.goto(url);
  await page
    .getByLabel('Model or project file')
    .setInputFiles({ name: 'post.obj', mimeType: 'text/plain', buffer: Buffer.from(POST) });
};

test.describe('with the build kept in the browser', () => {
  test.use({ serviceWorkers: 'allow' });

  test('every view works when the server is gone, work can leave, and a newer build is told', async ({
    page,
  }) => {
    const folder = copiedBuild();
    const first = await served(folder);
    await open(page, first.url);
    await benchReady(page);
    await page.waitForFunction(() => navigator.serviceWorker.controller?.state === 'activated');
    await first.end();
    // Parts that were never loaded: Help over the Bench, Deliver, the health report, the trials, an export.
    await page.getByRole('button', { name: 'Help' }).click();
    await expect(page.getByRole('dialog', { name: 'Help' })).toBeVisible();
    await page.getByRole('button', { name: 'Close Help' }).click();
    await page.keyboard.press('6');
    const obj = await download(page, 'Export OBJ');
    expect(obj.toString()).toContain('v 1 2 -1');
    await page.keyboard.press('1');
    await page.getByRole('link', { name: 'Rack' }).click();
    await page.getByLabel('More for post').click();
    await expect(page.getByText('Export project file')).toBeVisible();
    await page.keyboard.press('Escape');
    await page.getByRole('link', { name: 'Help' }).click();
    await expect(page.getByRole('heading', { name: 'How Blunt Hem is held' })).toBeVisible();
    await page.goBack();
    await page.getByRole('button', { name: /Bring the mud snail/ }).click();
    await expect(page.getByRole('alert')).toContainText(
      'the server that this page came from does not answer',
    );
    // Loaded anew, from what is kept.
    await page.reload();
    await page.getByRole('link', { name: /post/ }).click();
    await benchReady(page);
    // The server comes back, with another build.
    writeFileSync(join(folder, 'sw.js'), '// another build\n', { flag: 'a' });
    const again = await served(folder, Number(new URL(first.url).port));
    await page.reload();
    await expect(page.getByText('There is a newer Blunt Hem.')).toBeVisible();
    await page.evaluate(() => Object.assign(window, { before: true }));
    await page.getByRole('button', { name: 'Reload' }).click();
    await page.waitForFunction(() => !('before' in window));
    await benchReady(page);
    await expect(page.getByText('There is a newer Blunt Hem.')).toHaveCount(0);
    await again.end();
    rmSync(folder, { recursive: true });
  });
});

/** Each part of the build that can be missing, and where an artist meets that. */
const MISSING: readonly [string, (page: Page, url: string) => Promise<unknown>][] = [
  [
    'HelpOver',
    async (page, url) => {
      await open(page, url);
      await benchReady(page);
      await page.getByRole('button', { name: 'Help' }).click();
    },
  ],
  ['readerWorker', open],
  ['jobWorker', open],
  [
    'handWorker',
    async (page, url) => {
      await open(page, url);
      await benchReady(page);
      const model = await page.getByTestId('model').boundingBox();
      if (!model) throw new Error('There is no Model pane.');
      await page.mouse.click(model.x + model.width / 2, model.y + model.height / 2);
      await idle(page);
      await page.locator('.ant-collapse-header', { hasText: 'What is picked' }).click();
      await page.getByRole('button', { name: 'Grow' }).click();
    },
  ],
  ['documentWorker', (page, url) => page.goto(url)],
  ['HelpPage', (page, url) => page.goto(`${url}/help`)],
  ['BenchPage', open],
];

for (const [part, meet] of MISSING) {
  test(`${part} does not load: that is said where it would be`, async ({ page }) => {
    const folder = copiedBuild();
    leaveOut(folder, part);
    const server = await served(folder);
    await meet(page, server.url);
    await expect(page.getByRole('alert').first()).toContainText('could not be loaded: the server');
    if (part === 'HelpOver') {
      // What is beside it goes on.
      await page.keyboard.press('6');
      expect((await download(page, 'Export OBJ')).length).toBeGreaterThan(100);
    }
    await server.end();
    rmSync(folder, { recursive: true });
  });
}

test('without WebGL there are words instead of pictures, and work leaves', async () => {
  const browser = await chromium.launch({ ...chromiumLaunch, args: ['--no-sandbox', '--disable-3d-apis'] });
  const page = await browser.newPage({ baseURL: 'http://127.0.0.1:4190', acceptDownloads: true });
  await openModel(page, 'post.obj', POST);
  await benchReady(page);
  await expect(page.getByRole('alert')).toContainText('draws no WebGL 2');
  await page.keyboard.press('6');
  expect((await download(page, 'Export OBJ')).length).toBeGreaterThan(100);
  await browser.close();
});

test('a picture that the graphics card lets go of comes back', async ({ page }) => {
  await openModel(page, 'post.obj', POST);
  await benchReady(page);
  const lose = (what: 'loseContext' | 'restoreContext') =>
    page.evaluate((what) => {
      const holder = window as unknown as { loss?: WEBGL_lose_context | null };
      const canvas = document.querySelector<HTMLCanvasElement>('.panes-canvas');
      holder.loss ??= canvas?.getContext('webgl2')?.getExtension('WEBGL_lose_context');
      holder.loss?.[what]();
    }, what);
  await lose('loseContext');
  await expect(page.getByRole('alert')).toContainText('has let go of the picture');
  await lose('restoreContext');
  await expect(page.getByRole('alert')).toHaveCount(0);
  await idle(page);
});

test('where the browser keeps nothing, that is told, and a model is worked on all the same; leaving it is asked', async () => {
  const profile = mkdtempSync(join(tmpdir(), 'hem-blocked-'));
  mkdirSync(join(profile, 'Default'));
  const blocked = { profile: { default_content_setting_values: { cookies: 2 } } };
  writeFileSync(join(profile, 'Default', 'Preferences'), JSON.stringify(blocked));
  const context = await chromium.launchPersistentContext(profile, {
    ...chromiumLaunch,
    viewport: { width: 1280, height: 800 },
    baseURL: 'http://127.0.0.1:4190',
    acceptDownloads: true,
  });
  const page = await context.newPage();
  await page.goto('/');
  await expect(page.getByRole('alert').first()).toContainText('keeps nothing for this page');
  await page
    .getByLabel('Model or project file')
    .setInputFiles({ name: 'post.obj', mimeType: 'text/plain', buffer: Buffer.from(POST) });
  await benchReady(page);
  await expect(page.locator('.bench-saved')).toHaveText('Not saved');
  await page.keyboard.press('Shift+A');
  await page.keyboard.press('3');
  expect(await figure(page, 'shells')).toBe('1');
  await page.getByRole('link', { name: 'Rack' }).click();
  const asked = page.getByRole('dialog', { name: 'This project is in this tab alone' });
  await expect(asked).toBeVisible();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    asked.getByRole('button', { name: 'Export project file' }).click(),
  ]);
  expect(file.suggestedFilename()).toBe('post.hemproject');
  await asked.getByRole('button', { name: 'Stay here' }).click();
  await idle(page);
  // Closing the tab asks in the browser's own words.
  const dialog = page.waitForEvent('dialog');
  await page.close({ runBeforeUnload: true });
  expect((await dialog).type()).toBe('beforeunload');
  await (await dialog).dismiss();
  await page.getByRole('link', { name: 'Rack' }).click();
  await asked.getByRole('button', { name: 'Leave it behind' }).click();
  await expect(page.getByRole('heading', { name: 'Blunt Hem' })).toBeVisible();
  await page
    .getByLabel('Model or project file')
    .setInputFiles({ name: 'post.obj', mimeType: 'text/plain', buffer: Buffer.from(POST) });
  await benchReady(page);
  const [worker] = page.workers().filter((each) => each.url().includes('documentWorker'));
  await worker.evaluate('void setTimeout(() => { for (;;) {} }, 10)');
  await page.getByRole('button', { name: 'Start it again' }).click();
  await expect(page.getByRole('alert')).toContainText('could not be kept before, and is gone');
  await context.close();
  rmSync(profile, { recursive: true });
});
