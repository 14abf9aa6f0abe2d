import { readFile } from 'node:fs/promises';
import { expect, type Page } from '@playwright/test';
import { decode } from 'fast-png';
import { PerspectiveCamera, Vector3 } from 'three';

/** What tests do with mouse and keys, as an artist would. */

/** An upright box of 1 × 1 × 2 quads: twelve vertices, the middle ring at y = 1. */
export const POST = `# a post
o Post
g wood
usemtl Oak
s off
v 0 0 0
v 1 0 0
v 1 0 -1
v 0 0 -1
v 0 1 0
v 1 1 0
v 1 1 -1
v 0 1 -1
v 0 2 0
v 1 2 0
v 1 2 -1
v 0 2 -1
f 4 3 2 1
f 1 2 6 5
f 2 3 7 6
f 3 4 8 7
f 4 1 5 8
f 5 6 10 9
f 6 7 11 10
f 7 8 12 11
f 8 5 9 12
f 9 10 11 12
`;

/** Most of a ball, open below, down to an angle of `reach` from the top: a sheet of quads that unfolds with much stretch. */
export function dome(rings: number, sectors: number, reach = 2.4): string {
  const lines: string[] = [];
  for (let i = 0; i <= rings; i++) {
    for (let j = 0; j < sectors; j++) {
      const [a, b] = [0.02 + (reach * i) / rings, (2 * Math.PI * j) / sectors];
      lines.push(`v ${Math.sin(a) * Math.cos(b)} ${Math.cos(a)} ${Math.sin(a) * Math.sin(b)}`);
    }
  }
  const id = (i: number, j: number) => i * sectors + (j % sectors) + 1;
  for (let i = 0; i < rings; i++) {
    for (let j = 0; j < sectors; j++)
      lines.push(`f ${id(i, j)} ${id(i, j + 1)} ${id(i + 1, j + 1)} ${id(i + 1, j)}`);
  }
  lines.push(`f ${Array.from({ length: sectors }, (_, j) => id(0, sectors - 1 - j)).join(' ')}`);
  return `${lines.join('\n')}\n`;
}

/**
 * Has notes stay until something else is told: on a slow machine one would be gone before a test has looked. What goes by itself goes after
 * seven seconds at least.
 */
const keepNotes = (page: Page) =>
  page.addInitScript(() => {
    const later = window.setTimeout;
    const kept = (work: TimerHandler, wait = 0, ...words: unknown[]) =>
      wait >= 7000 ? 0 : later(work, wait, ...words);
    window.setTimeout = kept as typeof window.setTimeout;
  });

/** The Rack with the demo models on it, as a first visit finds it. */
export async function openRack(page: Page): Promise<void> {
  await keepNotes(page);
  await page.goto('/');
  await expect(page.getByRole('link', { name: /Toad ferryman/ })).toBeVisible();
}

/** The Rack of somebody who has taken the demo models off. */
export async function openEmptyRack(page: Page): Promise<void> {
  await keepNotes(page);
  await page.addInitScript("localStorage.setItem('blunt-hem-demos-added', '1')");
  await page.goto('/');
  await expect(page.getByRole('button', { name: 'Open a model or project' })).toBeVisible();
}

/** Opens a file from the Rack. */
export async function openModel(page: Page, name: string, content: string | Buffer): Promise<void> {
  await openEmptyRack(page);
  await page
    .getByLabel('Model or project file')
    .setInputFiles({ name, mimeType: 'application/octet-stream', buffer: Buffer.from(content) });
}

export async function benchReady(page: Page): Promise<void> {
  await expect(page.getByTestId('figure-shells')).toBeVisible();
  await idle(page);
}

/** Waits until the Bench rests: all that was asked is answered, kept, measured and drawn. The page itself tells. */
export async function idle(page: Page): Promise<void> {
  await expect(page.locator('html')).toHaveAttribute('data-rest', 'true');
  await drawn(page);
}

/** Waits until what was asked of the renderer is on the screen. */
export const drawn = (page: Page): Promise<void> =>
  page.evaluate('new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(() => done())))');

/** Takes an item from the menu of a button, and waits until the menu has gone: a button pressed while its menu is still closing opens nothing. */
export async function fromMenu(page: Page, button: string, item: string): Promise<void> {
  await page.getByRole('button', { name: button }).click();
  await page.getByRole('menuitem', { name: item, exact: true }).click();
  await expect(page.locator('.ant-dropdown:visible')).toHaveCount(0);
}

/** The value of a figure of the measure strip. */
export async function figure(page: Page, name: string): Promise<string> {
  return (await page.getByTestId(`figure-${name}`).locator('strong').textContent()) ?? '';
}

/** A point of a pane, as parts of its width and height. */
export async function at(
  page: Page,
  pane: 'model' | 'board',
  x: number,
  y: number,
): Promise<[number, number]> {
  const box = await page.getByTestId(pane).boundingBox();
  if (!box) throw new Error(`no ${pane}`);
  return [box.x + x * box.width, box.y + y * box.height];
}

/** Where a point of the post is on the screen, while the camera stands where it first stood. */
export async function onPost(
  page: Page,
  point: readonly [number, number, number],
): Promise<[number, number]> {
  const box = await page.getByTestId('model').boundingBox();
  if (!box) throw new Error('no model');
  const camera = new PerspectiveCamera(35, box.width / box.height, 0.1, 100);
  const middle = new Vector3(0.5, 1, -0.5);
  const direction = new Vector3(0.62, 0.42, 1).normalize();
  const right = new Vector3(0, 1, 0).cross(direction).normalize();
  const above = direction.clone().cross(right);
  const reach = 0.92 * Math.tan((35 * Math.PI) / 360);
  const corners = [0, 1].flatMap((cx) =>
    [0, 2].flatMap((cy) => [-1, 0].map((cz) => new Vector3(cx, cy, cz))),
  );
  const back = Math.max(
    ...corners.map((corner) => {
      const away = corner.sub(middle);
      const beside = Math.abs(away.dot(right)) / (reach * camera.aspect);
      return away.dot(direction) + Math.max(beside, Math.abs(away.dot(above)) / reach);
    }),
  );
  camera.position.copy(middle).addScaledVector(direction, back);
  camera.lookAt(middle);
  camera.updateMatrixWorld();
  const { x, y } = new Vector3(...point).project(camera);
  return [box.x + (0.5 + 0.5 * x) * box.width, box.y + (0.5 - 0.5 * y) * box.height];
}

/** Pixels of a pane that are of the colour that marks what is selected and pointed at, in the pane's own coordinates. */
async function markedPixels(page: Page, pane: 'model' | 'board'): Promise<[number, number][]> {
  await drawn(page);
  const { data, channels, width } = decode(await page.getByTestId(pane).screenshot());
  const found: [number, number][] = [];
  for (let i = 0, pixel = 0; i < data.length; i += channels, pixel++)
    if (data[i] - data[i + 1] > 60 && data[i + 2] - data[i + 1] > 20)
      found.push([pixel % width, Math.floor(pixel / width)]);
  return found;
}

/** How many there are. */
export const marked = async (page: Page, pane: 'model' | 'board'): Promise<number> =>
  (await markedPixels(page, pane)).length;

/** The one nearest to a place, both in pixels of the page. */
export async function nearestMarked(
  page: Page,
  pane: 'model' | 'board',
  x: number,
  y: number,
): Promise<[number, number]> {
  const box = await page.getByTestId(pane).boundingBox();
  if (!box) throw new Error(`no ${pane}`);
  const pixels = (await markedPixels(page, pane)).map(([u, v]): [number, number] => [box.x + u, box.y + v]);
  const far = ([u, v]: [number, number]) => Math.hypot(u - x, v - y);
  return pixels.reduce((best, each) => (far(each) < far(best) ? each : best));
}

/** The middle of a ring edge in front. */
export const RING: readonly [number, number, number] = [0.5, 1, 0];

export async function download(page: Page, button: string): Promise<Buffer> {
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: button }).click(),
  ]);
  return readFile(await file.path());
}

/** A rolling sheet of quads, seen from above as from the front: it unfolds with some stretch. */
export function hills(count: number): string {
  const lines: string[] = [];
  for (let i = 0; i <= count; i++)
    for (let j = 0; j <= count; j++) {
      const [x, y] = [j / count, i / count];
      lines.push(`v ${x} ${y} ${0.35 * Math.exp(-12 * ((x - 0.4) ** 2 + (y - 0.55) ** 2))}`);
    }
  const id = (i: number, j: number) => i * (count + 1) + j + 1;
  for (let i = 0; i < count; i++)
    for (let j = 0; j < count; j++)
      lines.push(`f ${id(i, j)} ${id(i, j + 1)} ${id(i + 1, j + 1)} ${id(i + 1, j)}`);
  return `${lines.join('\n')}\n`;
}

/** Opens a sheet, unfolds it, and goes to the stage of unfolding. */
export async function unfolded(page: Page, obj = hills(24)): Promise<void> {
  await openModel(page, 'sheet.obj', obj);
  await benchReady(page);
  await page.keyboard.press('3');
  await page.keyboard.press('s');
  await expect(page.locator('header')).toContainText(/Unfold/);
  await idle(page);
}
