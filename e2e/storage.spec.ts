import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, expect, type Page } from '@playwright/test';
import { chromiumLaunch } from '../playwright.config.ts';
import { benchReady, download, figure, idle, onPost, openModel, openRack, POST, RING } from './hands.ts';
import { test } from './test.ts';

/** What happens to work when things go wrong: see docs/storage.md. */

const saved = (page: Page) => page.locator('.bench-saved');
const project = (page: Page) => new URL(page.url()).pathname.split('/').at(-1) as string;

async function cutRing(page: Page): Promise<void> {
  const [x, y] = await onPost(page, RING);
  await page.mouse.move(x, y);
  await page.mouse.dblclick(x, y);
  await expect(page.getByTestId('selection')).toHaveText('4 edges');
  await page.keyboard.press('a');
  await idle(page);
}

/** Does something to one table of the database, from a page that is not the one that has the project open. */
const tamper = (page: Page, table: string, key: unknown, value: object | null) =>
  page.evaluate(
    ([table, key, value]) =>
      new Promise<void>((resolve, reject) => {
        const opening = indexedDB.open('blunt-hem');
        opening.onerror = () => reject(opening.error);
        opening.onsuccess = () => {
          const database = opening.result;
          const store = database.transaction(table as string, 'readwrite').objectStore(table as string);
          const done = () => {
            database.close();
            resolve();
          };
          store.transaction.oncomplete = done;
          if (value === null) store.delete(key as IDBValidKey);
          else {
            const old = store.get(key as IDBValidKey);
            old.onsuccess = () => store.put({ ...old.result, ...(value as object) });
          }
        };
      }),
    [table, key, value] as const,
  );

test('two tabs: what is open in one cannot be taken off the Rack in another', async ({ page, context }) => {
  await openModel(page, 'post.obj', POST);
  await benchReady(page);
  const second = await context.newPage();
  await second.goto('/');
  await second.getByLabel('More for post').click();
  await second.getByText('Take off the Rack').click();
  await expect(second.getByRole('alert')).toContainText('open in another tab. Close it there first');
  await expect(second.getByRole('link', { name: /post/ })).toBeVisible();
  await cutRing(page);
  await expect(saved(page)).toHaveText('Saved');
  await page.close();
  // Now it can, and it is there again after a restart, to be put back or deleted.
  await second.getByLabel('More for post').click();
  await second.getByText('Take off the Rack').last().click();
  await expect(second.getByRole('link', { name: /post/ })).toHaveCount(0);
  await second.reload();
  await second.getByRole('button', { name: 'Show the list' }).click();
  await second
    .getByRole('region', { name: 'Off the Rack' })
    .getByRole('button', { name: 'Put it back' })
    .click();
  await second.getByRole('link', { name: /post/ }).click();
  await benchReady(second);
  expect(await figure(second, 'shells')).toBe('2');
});

test('a project whose rows vanish says so at once, and can be kept as a new one', async ({
  page,
  context,
}) => {
  await openModel(page, 'post.obj', POST);
  await benchReady(page);
  await cutRing(page);
  const second = await context.newPage();
  await second.goto('/help');
  const lost = project(page);
  await tamper(second, 'projects', lost, null);
  await page.keyboard.press('d');
  await expect(page.getByRole('alert')).toContainText('not on the Rack any more');
  await expect(saved(page)).toHaveText('Not saved');
  await page.getByRole('button', { name: 'Keep it as a new project' }).click();
  await expect(page).not.toHaveURL(new RegExp(lost));
  await benchReady(page);
  expect(await figure(page, 'shells')).toBe('2');
  await page.keyboard.press('d');
  await idle(page);
  await expect(saved(page)).toHaveText('Saved');
  await page.reload();
  await benchReady(page);
  await page.keyboard.press('Control+z');
  await idle(page);
  await page.keyboard.press('Control+z');
  await idle(page);
  expect(await figure(page, 'shells')).toBe('1');
});

test('a damaged project shows as such, hides no other, and opens with what is whole', async ({
  page,
  context,
}) => {
  await openModel(page, 'post.obj', POST);
  await benchReady(page);
  await cutRing(page);
  await page.keyboard.press('d');
  await idle(page);
  const id = project(page);
  await page.goto('/help');
  const tool = await context.newPage();
  await tool.goto('/help');
  // The relax is damaged; its own row on the Rack is as well.
  await tamper(tool, 'pieces', [id, 2, 0], { bytes: new Uint8Array(8) });
  await tamper(tool, 'projects', id, { name: 7, picture: 'x' });
  await page.goto('/');
  await expect(page.locator('.rack-card')).toContainText('Damaged.');
  await page.locator('.rack-open').click();
  await expect(page.getByRole('alert')).toContainText('The project is whole as it was after “Unfold');
  await page.getByRole('button', { name: 'Open what is whole' }).click();
  await benchReady(page);
  expect(await figure(page, 'shells')).toBe('2');
  await expect(
    page.getByRole('status').filter({ hasText: 'The damaged one stays on the Rack' }),
  ).toBeVisible();
  await page.keyboard.press('Control+z');
  await idle(page);
  expect(await figure(page, 'shells')).toBe('1');
  await page.getByRole('link', { name: 'Rack' }).click();
  await expect(page.locator('.rack-card')).toHaveCount(2);
  // What was found on opening is remembered.
  await expect(page.locator('.rack-card[data-damaged=true]')).toContainText('whole as it was after “Unfold');
});

test('a store of a later version is told and left as it is', async ({ page }) => {
  await page.goto('/demo/punt-thwart.png');
  await page.evaluate(
    () =>
      new Promise<void>((resolve) => {
        const opening = indexedDB.open('blunt-hem', 990);
        opening.onupgradeneeded = () =>
          opening.result.createObjectStore('later', { keyPath: 'id' }).add({ id: 1 });
        opening.onsuccess = () => {
          opening.result.close();
          resolve();
        };
      }),
  );
  await page.goto('/');
  await expect(page.getByRole('alert').first()).toContainText(
    'written by a later Blunt Hem (its version is 99',
  );
  await page.goto('/project/any');
  await expect(page.getByRole('alert')).toContainText('later Blunt Hem');
  const version = await page.evaluate(
    () =>
      new Promise((resolve) => {
        const opening = indexedDB.open('blunt-hem');
        opening.onsuccess = () => resolve(opening.result.version);
      }),
  );
  expect(version).toBe(990);
});

test('a full store: nothing is lost, exports work, and room can always be made', async ({
  page,
  context,
}) => {
  const cdp = await context.newCDPSession(page);
  await page.goto('/help');
  const { origin } = new URL(page.url());
  await cdp.send('Storage.overrideQuotaForOrigin', { origin, quotaSize: 130_000 });
  await openModel(page, 'post.obj', POST);
  await benchReady(page);
  await expect(saved(page)).toHaveText('Saved');
  await cutRing(page);
  // Until no more fits in.
  const alert = page.getByRole('alert');
  let stretch = '';
  for (let i = 0; i < 80 && (await alert.count()) === 0; i++) {
    stretch = await figure(page, 'stretch-l2');
    await page.keyboard.press(i % 2 === 0 ? 'd' : 's');
    await idle(page);
  }
  await expect(alert).toContainText('the browser gives this page no more room');
  await expect(saved(page)).toHaveText('Saved');
  await idle(page);
  expect(await figure(page, 'stretch-l2')).toBe(stretch);
  // And until not even the smallest act does.
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await page.locator('.details-table .ant-table-row').first().click();
  for (let i = 0; i < 80 && (await alert.count()) === 0; i++) {
    await page.keyboard.press('g');
    await idle(page);
  }
  await expect(alert).toContainText('the browser gives this page no more room');
  await page.keyboard.press('6');
  expect((await download(page, 'Export project file')).length).toBeGreaterThan(1000);
  expect((await download(page, 'Export OBJ')).toString()).toContain('vt ');

  await page.getByRole('link', { name: 'Rack' }).click();
  await expect(page.getByRole('link', { name: /post/ })).toBeVisible();
  // A model for which there is no room can be worked on and exported all the same. The browser tidies its files at times of its own, so
  // that what it has room for is said here; and it trusts for half a minute in what room it last saw, so the file is larger than that can
  // have been: it carries a comment that does not pack.
  await cdp.send('Storage.overrideQuotaForOrigin', { origin, quotaSize: 1_000 });
  const comment = randomBytes(300_000)
    .toString('base64')
    .replace(/.{1,76}/g, '# $&\n');
  await page
    .getByLabel('Model or project file')
    .setInputFiles({ name: 'second.obj', mimeType: 'text/plain', buffer: Buffer.from(`${POST}${comment}`) });
  await benchReady(page);
  await expect(saved(page)).toHaveText('Not saved');
  await cutRing(page);
  await expect(saved(page)).toHaveText('Not saved');
  expect(await figure(page, 'shells')).toBe('2');
  await page.keyboard.press('Control+z');
  await idle(page);
  expect(await figure(page, 'shells')).toBe('1');
  await page.keyboard.press('Control+Shift+z');
  await idle(page);
  await page.keyboard.press('6');
  expect((await download(page, 'Export OBJ')).toString()).toContain('vt ');
  // Room is made from another tab; then it is kept.
  const second = await context.newPage();
  await second.goto('/');
  await second.getByLabel('More for post').click();
  await second.getByText('Take off the Rack').click();
  await expect(second.getByRole('alert')).toContainText('not even room to put “post” aside');
  await second.getByRole('button', { name: 'Delete it for good' }).click();
  await expect(second.locator('.rack-card')).toHaveCount(0);
  await cdp.send('Storage.overrideQuotaForOrigin', { origin });
  await second.reload();
  const adrift = project(page);
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page).not.toHaveURL(new RegExp(adrift));
  await benchReady(page);
  await expect(saved(page)).toHaveText('Saved');
  await page.reload();
  await benchReady(page);
  expect(await figure(page, 'shells')).toBe('2');
});

test('the whole Rack goes into one file and comes back from it', async ({ page, browser }) => {
  await openRack(page);
  const backup = await download(page, 'Back up the Rack');
  const before = await page.locator('.rack-card strong').allTextContents();
  const other = await (await browser.newContext()).newPage();
  await other.addInitScript("localStorage.setItem('blunt-hem-demos-added', '1')");
  await other.goto(page.url());
  const drop = () =>
    other
      .getByLabel('Model or project file')
      .setInputFiles({ name: 'Rack.hemrack', mimeType: 'application/zip', buffer: backup });
  await drop();
  await expect(other.getByRole('status').filter({ hasText: '6 projects were put back.' })).toBeVisible();
  expect(await other.locator('.rack-card strong').allTextContents()).toEqual(before);
  await drop();
  await expect(
    other.getByRole('status').filter({ hasText: '6 are here already as they were' }),
  ).toBeVisible();
  await expect(other.locator('.rack-card')).toHaveCount(6);
  await other.getByRole('link', { name: /Toad ferryman/ }).click();
  await benchReady(other);
  expect(await figure(other, 'shells')).toBe('8');
});

/** How often the browser is killed: a few times in the tests, a hundred in the benchmark. */
const KILLS = Number(process.env.HEM_KILLS ?? 3);
/** Latest moment after the key, milliseconds: by then the act is long done. */
const LATEST = 150;

test('a browser that is killed at any moment leaves each act done or not done', async ({ baseURL }) => {
  test.setTimeout(60_000 + 30_000 * KILLS);
  const profile = mkdtempSync(join(tmpdir(), 'hem-kill-'));
  /** A browser of its own process group, with a profile that outlives it. */
  const start = async () => {
    const child = spawn(
      chromiumLaunch.executablePath,
      [
        ...chromiumLaunch.args,
        '--headless=new',
        '--remote-debugging-port=0',
        `--user-data-dir=${profile}`,
        '--no-first-run',
        'about:blank',
      ],
      { detached: true, stdio: 'ignore' },
    );
    const file = join(profile, 'DevToolsActivePort');
    rmSync(file, { force: true });
    await expect.poll(() => portIn(file)).toBeDefined();
    const browser = await chromium.connectOverCDP(`http://127.0.0.1:${portIn(file)}`);
    const [context] = browser.contexts();
    const page = context.pages()[0] ?? (await context.newPage());
    await page.setViewportSize({ width: 1280, height: 800 });
    return { page, kill: () => process.kill(-(child.pid as number), 'SIGKILL') };
  };
  let { page, kill } = await start();
  try {
    await page.addInitScript("localStorage.setItem('blunt-hem-demos-added', '1')");
    await page.goto(`${baseURL}/`);
    await page
      .getByLabel('Model or project file')
      .setInputFiles({ name: 'post.obj', mimeType: 'text/plain', buffer: Buffer.from(POST) });
    await benchReady(page);
    await cutRing(page);
    await expect(saved(page)).toHaveText('Saved');
    const url = page.url();
    let told = 1;
    for (let round = 0; round < KILLS; round++) {
      // Acts that change something every time; each is told as saved before it counts.
      for (const key of ['s', 'd']) {
        await page.keyboard.press(key);
        await idle(page);
        told = Number(await acts(page));
      }
      await page.keyboard.press('s');
      await new Promise((resolve) => setTimeout(resolve, Math.random() * LATEST));
      kill();
      ({ page, kill } = await start());
      await page.goto(url);
      await benchReady(page);
      const now = Number(await acts(page));
      expect(now === told || now === told + 1).toBe(true);
      expect(await figure(page, 'shells')).toBe('2');
      expect(await figure(page, 'flipped')).toBe('0');
    }
  } finally {
    kill();
    rmSync(profile, { recursive: true, force: true, maxRetries: 5 });
  }
});

/** How many acts the store has of the only project that is in it. */
const acts = (page: Page): Promise<number> =>
  page.evaluate(
    () =>
      new Promise<number>((resolve) => {
        const opening = indexedDB.open('blunt-hem');
        opening.onsuccess = () => {
          const count = opening.result.transaction('acts').objectStore('acts').count();
          count.onsuccess = () => {
            opening.result.close();
            resolve(count.result);
          };
        };
      }),
  );

function portIn(file: string): string | undefined {
  try {
    return readFileSync(file, 'utf8').split('\n')[0] || undefined;
  } catch {
    return undefined;
  }
}
