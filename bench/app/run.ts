import { execFileSync, spawn } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { chromiumLaunch } from '../../playwright.config.ts';
import { hillsObj, patchesObj } from './models.ts';

/**
 * What an artist waits for in the app, from the key to the picture, in a real browser. Prints one JSON line a figure.
 *
 *     npm run bench:app -- [--root DIR] [section …]
 *
 * `--root` is the checkout whose build is measured, so that two of them can be compared on one machine in one hour.
 */
const words = process.argv.slice(2);
const at = words.indexOf('--root');
const root = at < 0 ? process.cwd() : words.splice(at, 2)[1];
const PORT = 4300 + (process.pid % 500);
const ADDRESS = `http://127.0.0.1:${PORT}`;

const say = (section: string, figure: string, value: number, unit: string) =>
  process.stdout.write(
    `${JSON.stringify({ section, figure, value: Math.round(value * 100) / 100, unit })}\n`,
  );

/** A browser with a profile of its own, so that every visit is a first one. */
async function visit<T>(work: (page: Page) => Promise<T>): Promise<T> {
  const profile = mkdtempSync(join(tmpdir(), 'hem-bench-'));
  const context = await chromium.launchPersistentContext(profile, {
    ...chromiumLaunch,
    viewport: { width: 1280, height: 800 },
  });
  try {
    const page = context.pages()[0] ?? (await context.newPage());
    page.setDefaultTimeout(600_000);
    return await work(page);
  } finally {
    await context.close();
    rmSync(profile, { recursive: true, force: true });
  }
}

/** Resident memory of the largest renderer process, MB. */
function rendererMegabytes(): number {
  const lines = execFileSync('ps', ['-eo', 'rss,args'], { encoding: 'utf8', maxBuffer: 1e8 }).split('\n');
  const sizes = lines
    .filter((line) => line.includes('--type=renderer'))
    .map((line) => Number.parseInt(line, 10));
  return Math.max(0, ...sizes) / 1024;
}

/** In the page, before anything else: leaves out drawing, which in software costs more than everything else. */
const BLIND = `for (const draw of ['drawArrays', 'drawElements', 'drawArraysInstanced', 'drawElementsInstanced'])
  WebGL2RenderingContext.prototype[draw] = () => undefined;`;

/** In the page, before anything else: notes how long it takes from a question to its answer on the main thread. */
const LISTEN = `(() => {
  const times = (window.hemTimes = {});
  const asked = new Map();
  const post = Worker.prototype.postMessage;
  const heard = new WeakSet();
  Worker.prototype.postMessage = function (message, ...more) {
    const name = message?.path?.[0] === 'ask' && message.argumentList?.[0]?.value;
    if (name) asked.set(message.id, [name, performance.now()]);
    if (!heard.has(this)) {
      heard.add(this);
      this.addEventListener('message', ({ data }) => {
        const [of, since] = asked.get(data?.id) ?? [];
        if (of && asked.delete(data.id)) (times[of] ??= []).push(performance.now() - since);
      });
    }
    return post.call(this, message, ...more);
  };
})()`;

/**
 * Put before the code of the worker that owns the document: counts the bytes that it posts to solvers and to the page, without what is
 * handed over or shared, and tells the sum when it is asked on a channel.
 */
const COUNT = `(() => {
  let bytes = 0;
  const sizeOf = (value, given) => {
    if (ArrayBuffer.isView(value))
      return value.buffer instanceof ArrayBuffer && !given.has(value.buffer) ? value.byteLength : 16;
    if (typeof value === 'string') return value.length;
    if (Array.isArray(value) && typeof value[0] === 'number') return 8 * value.length;
    if (value && typeof value === 'object' && [Object.prototype, Array.prototype].includes(Object.getPrototypeOf(value)))
      return Object.values(value).reduce((sum, each) => sum + sizeOf(each, given), 16);
    return 8;
  };
  for (const kind of [Worker, MessagePort]) {
    const post = kind.prototype.postMessage;
    kind.prototype.postMessage = function (message, transfer) {
      bytes += sizeOf(message, new Set(Array.isArray(transfer) ? transfer : (transfer?.transfer ?? [])));
      return post.call(this, message, transfer);
    };
  }
  const post = self.postMessage;
  self.postMessage = (message, transfer) => {
    bytes += sizeOf(message, new Set(Array.isArray(transfer) ? transfer : (transfer?.transfer ?? [])));
    return post.call(self, message, transfer);
  };
  const channel = new BroadcastChannel('hem-bytes');
  channel.onmessage = ({ data }) => {
    if (data !== 'ask') return;
    channel.postMessage(bytes);
    bytes = 0;
  };
})();
`;

/** Put before the code of the same worker: notes how long it answers nothing, and tells that when it is asked on a channel. */
const LAG = `(() => {
  let last = performance.now();
  let longest = 0;
  setInterval(() => {
    const now = performance.now();
    longest = Math.max(longest, now - last);
    last = now;
  }, 2);
  const channel = new BroadcastChannel('hem-lag');
  channel.onmessage = ({ data }) => {
    if (data !== 'ask') return;
    channel.postMessage(longest);
    longest = 0;
  };
})();
`;

/** The longest that the worker which owns the document did nothing else since this was last asked, milliseconds. */
const longestPiece = (page: Page): Promise<number> =>
  page.evaluate<number>(`new Promise((resolve) => {
    const channel = new BroadcastChannel('hem-lag');
    channel.onmessage = ({ data }) => {
      if (typeof data !== 'number') return;
      channel.close();
      resolve(data);
    };
    channel.postMessage('ask');
  })`);

/** Has something put before the code of the worker that owns the document. */
const prefixWorker = (page: Page, code: string): Promise<unknown> =>
  page.route('**/documentWorker*.js', async (route) => {
    const response = await route.fetch();
    await route.fulfill({ response, body: code + (await response.text()) });
  });

/** Has the bytes counted that the worker posts which owns the document. */
const countBytes = (page: Page): Promise<unknown> => prefixWorker(page, COUNT);

/** Bytes that were posted since this was last asked, in thousands. */
const postedKilobytes = (page: Page): Promise<number> =>
  page.evaluate<number>(`new Promise((resolve) => {
    const channel = new BroadcastChannel('hem-bytes');
    channel.onmessage = ({ data }) => {
      if (typeof data !== 'number') return;
      channel.close();
      resolve(data / 1000);
    };
    channel.postMessage('ask');
  })`);

/** Says the middle and the worst of the answers to a question since the last time. */
async function sayTimes(page: Page, question: string, figure: string): Promise<void> {
  const times = await page.evaluate<number[]>(
    `(() => { const all = window.hemTimes['${question}'] ?? []; window.hemTimes['${question}'] = []; return all; })()`,
  );
  const sorted = times.slice(1).sort((a, b) => a - b);
  say('hands', `${figure}, first of ${times.length} answers`, times[0], 'ms');
  say('hands', `${figure}, middle`, sorted[sorted.length >> 1], 'ms');
  say('hands', `${figure}, slowest of the rest`, sorted[sorted.length - 1], 'ms');
}

/** Puts a file on the Rack and opens it; milliseconds from having it chosen to its figures on the strip. */
async function open(page: Page, text: string): Promise<number> {
  await page.goto(ADDRESS);
  await page.getByRole('link', { name: /Toad ferryman/ }).waitFor();
  const folder = mkdtempSync(join(tmpdir(), 'hem-model-'));
  const path = join(folder, 'model.obj');
  writeFileSync(path, text);
  const start = performance.now();
  await page.getByLabel('Model or project file').setInputFiles(path);
  await page.getByTestId('figure-shells').waitFor();
  await settled(page);
  rmSync(folder, { recursive: true });
  return performance.now() - start;
}

/**
 * In the page, on its own clock: waits until nothing runs, all is saved and, where it is asked for, a figure tells something. As text,
 * for what compiles this file adds helpers that a page does not have.
 */
const SETTLED = `(from, runs, figure) => new Promise((resolve) => {
  let quiet = 0;
  let seen = !runs;
  let since = performance.now();
  const look = () => {
    const still =
      !document.querySelector('[aria-label="Running"]') &&
      document.querySelector('.bench-saved')?.textContent === 'Saved' &&
      (!figure || document.querySelector('[data-testid="figure-stretch-l2"] strong')?.textContent !== '–');
    if (!still) seen = true;
    if (!still || !seen) quiet = 0;
    else if (quiet++ === 0) since = performance.now();
    if (quiet >= 8) resolve(since - from);
    else setTimeout(look, 10);
  };
  setTimeout(look, 20);
})`;

/**
 * @param runs  whether it is certain to run for a while: then it is not over before it began
 * @param figure  whether to wait for figures too
 */
const settled = (page: Page, start = 0, runs = false, figure = false): Promise<number> =>
  page.evaluate(`(${SETTLED})(${start}, ${runs}, ${figure})`);

/** Presses a key and waits for what it does; milliseconds. */
async function key(page: Page, press: string, runs = false, figure = false): Promise<number> {
  const start = await page.evaluate(() => performance.now());
  await page.keyboard.press(press);
  return settled(page, start, runs, figure);
}

const sections: Record<string, () => Promise<void>> = {
  async rack() {
    await visit(async (page) => {
      let bytes = 0;
      const client = await page.context().newCDPSession(page);
      await client.send('Network.enable');
      client.on('Network.loadingFinished', ({ encodedDataLength }) => (bytes += encodedDataLength));
      const start = performance.now();
      await page.goto(ADDRESS);
      await page.getByRole('button', { name: /Open a model/ }).waitFor();
      say('rack', 'first visit: the Rack can be used', performance.now() - start, 'ms');
      say('rack', 'bytes till then', bytes / 1000, 'kB');
      await page.getByRole('link', { name: /Toad ferryman/ }).waitFor();
      say('rack', 'first visit: the demo is there', performance.now() - start, 'ms');
    });
  },
  async opening() {
    for (const size of [20_000, 100_000]) {
      await visit(async (page) => {
        say('opening', `${size} triangles, file to figures`, await open(page, hillsObj(size)), 'ms');
        // An artist looks before the first key.
        await page.waitForTimeout(2_000);
        const runs: number[] = [];
        for (let i = 0; i < 10; i++) runs.push(await key(page, 's', true, true));
        say('unfold', `${size}, first after opening`, runs[0], 'ms');
        say('unfold', `${size}, tenth`, runs[9], 'ms');
        await key(page, 'd', true);
        const undo: number[] = [];
        for (let i = 0; i < 10; i++) undo.push(await key(page, i % 2 ? 'Control+Shift+z' : 'Control+z'));
        say(
          'undo',
          `${size}, ten undos and redos`,
          undo.reduce((a, b) => a + b),
          'ms',
        );
      });
    }
  },
  async cutting() {
    for (const size of [20_000, 100_000]) {
      await visit(async (page) => {
        await countBytes(page);
        await page.addInitScript(BLIND);
        await open(page, hillsObj(size));
        await page.waitForTimeout(2_000);
        await key(page, 's', true, true);
        const model = await page.getByRole('region', { name: 'Model' }).boundingBox();
        if (!model) throw new Error('There is no Model pane.');
        const runs: number[] = [];
        const posted: number[] = [];
        for (let i = 0; i < 12; i++) {
          await page.mouse.click(model.x + model.width * (0.35 + 0.03 * i), model.y + model.height * 0.55);
          // Until what it would lead to is drawn, and all is still.
          await page.waitForTimeout(500 + size / 40);
          await postedKilobytes(page);
          runs.push(await key(page, 'a'));
          await page.waitForTimeout(500 + size / 40);
          posted.push(await postedKilobytes(page));
        }
        const middle = (list: readonly number[]) => list.slice(9).sort((a, b) => a - b)[1];
        say('cut', `${size} triangles, first, its ghost drawn`, runs[0], 'ms');
        say('cut', `${size} triangles, tenth to twelfth, middle`, middle(runs), 'ms');
        say('cut', `${size} triangles, posted for one, middle`, middle(posted), 'kB');
      });
    }
  },
  async hands() {
    for (const size of [10_000, 100_000]) {
      await visit(async (page) => {
        await page.addInitScript(BLIND);
        await page.addInitScript(LISTEN);
        await open(page, hillsObj(size));
        await page.waitForTimeout(2_000);
        await page.keyboard.press('3');
        await key(page, 's', true, true);
        const board = await page.getByTestId('board').boundingBox();
        if (!board) throw new Error('There is no Board pane.');
        const at = ([x, y]: readonly [number, number]): [number, number] => [
          board.x + x * board.width,
          board.y + y * board.height,
        ];
        const drag = async (from: readonly [number, number], to: readonly [number, number]) => {
          await page.mouse.move(...at(from));
          await page.waitForTimeout(500);
          await page.mouse.down();
          await page.waitForTimeout(1_500);
          for (let i = 1; i <= 60; i++) {
            const part = i / 60;
            await page.mouse.move(
              ...at([from[0] + part * (to[0] - from[0]), from[1] + part * (to[1] - from[1])]),
            );
            await page.waitForTimeout(16);
          }
          await page.mouse.up();
          await settled(page);
        };
        await page.keyboard.press('p');
        for (const place of [
          [0.35, 0.45],
          [0.6, 0.55],
        ] as const) {
          await page.mouse.move(...at(place));
          await page.waitForTimeout(700);
          await page.mouse.click(...at(place));
          await settled(page);
        }
        await drag([0.6, 0.55], [0.64, 0.6]);
        await sayTimes(page, 'moved-pin', `${size} triangles, a pin moved`);
        await page.keyboard.press('h');
        await drag([0.4, 0.5], [0.55, 0.5]);
        await sayTimes(page, 'brushed', `${size} triangles, a touch of the hand`);
      });
    }
  },
  async worker() {
    for (const size of [20_000, 200_000]) {
      await visit(async (page) => {
        await prefixWorker(page, LAG);
        await page.addInitScript(BLIND);
        await open(page, hillsObj(size));
        await page.waitForTimeout(3_000);
        const tell = async (act: string, work: () => Promise<unknown>) => {
          await longestPiece(page);
          await work();
          await page.waitForTimeout(500);
          say('worker', `${size} triangles, ${act}`, await longestPiece(page), 'ms');
        };
        await key(page, 's', true, true);
        await tell('unfold', () => key(page, 's', true, true));
        const [model, board] = await Promise.all(
          ['model', 'board'].map((pane) => page.getByTestId(pane).boundingBox()),
        );
        if (!model || !board) throw new Error('There are no panes.');
        await tell('an edge picked, its ghost', async () => {
          await page.mouse.click(model.x + 0.5 * model.width, model.y + 0.55 * model.height);
          await page.waitForTimeout(500 + size / 40);
        });
        await tell('the cut', () => key(page, 'a'));
        await tell('undo', () => key(page, 'Control+z'));
        await page.keyboard.press('3');
        const drag = async (from: readonly [number, number]) => {
          await page.mouse.move(board.x + from[0] * board.width, board.y + from[1] * board.height);
          await page.waitForTimeout(800);
          await page.mouse.down();
          await page.waitForTimeout(1_000);
          for (let i = 1; i <= 30; i++) {
            await page.mouse.move(
              board.x + (from[0] + 0.002 * i) * board.width,
              board.y + from[1] * board.height,
            );
            await page.waitForTimeout(16);
          }
          await page.waitForTimeout(300);
        };
        await page.keyboard.press('p');
        for (const x of [0.4, 0.6]) {
          await page.mouse.move(board.x + x * board.width, board.y + 0.5 * board.height);
          await page.waitForTimeout(800);
          await page.mouse.click(board.x + x * board.width, board.y + 0.5 * board.height);
          await settled(page);
        }
        await tell('a pin dragged', () => drag([0.6, 0.5]));
        await page.mouse.up();
        await settled(page);
        await page.keyboard.press('h');
        await tell('the brush', () => drag([0.45, 0.5]));
        await page.mouse.up();
        await settled(page);
      });
    }
  },
  async stopping() {
    await visit(async (page) => {
      await open(page, patchesObj(2_000, 4));
      await key(page, 's', true);
      await page.keyboard.press('5');
      await page.getByRole('button', { name: 'Pack the tile' }).click();
      await page.waitForTimeout(1_000);
      const running = await page.getByLabel('Running').isVisible();
      const start = await page.evaluate(() => performance.now());
      await page
        .getByRole('button', { name: 'Stop' })
        .click({ force: true })
        .catch(() => undefined);
      say(
        'stop',
        `packing 2 000 shells${running ? '' : ' (it was done already)'}`,
        await settled(page, start),
        'ms',
      );
    });
  },
  async relaxing() {
    await visit(async (page) => {
      await open(page, hillsObj(100_000));
      await key(page, 's', true);
      await page.keyboard.press('d');
      await page.waitForTimeout(1_500);
      const start = await page.evaluate(() => performance.now());
      await page.getByRole('button', { name: 'Stop' }).click({ force: true });
      await page.locator('.bench-running-name').waitFor({ state: 'detached' });
      say(
        'stop',
        'relaxing 100 000 triangles, until nothing runs',
        (await page.evaluate(() => performance.now())) - start,
        'ms',
      );
    });
  },
  async exporting() {
    await visit(async (page) => {
      await open(page, hillsObj(100_000));
      await page.keyboard.press('s');
      await page.getByLabel('Running').waitFor();
      await page.locator('.bench-running-name').waitFor({ state: 'detached' });
      await page.keyboard.press('6');
      for (const name of ['Export OBJ', 'Template PNG']) {
        const start = performance.now();
        const [file] = await Promise.all([
          page.waitForEvent('download'),
          page.getByRole('button', { name }).click(),
        ]);
        await file.path();
        say('export', `${name}, 100 000 triangles, right after an unfold`, performance.now() - start, 'ms');
      }
    });
  },
  async shells() {
    await visit(async (page) => {
      await open(page, patchesObj(200, 16));
      for (let i = 0; i < 3; i++) await key(page, 's', true);
      say('shells', '200 shells of 512 triangles, unfolded again', await key(page, 's', true), 'ms');
    });
  },
  async million() {
    await visit(async (page) => {
      say('million', 'open', await open(page, hillsObj(1_000_000)), 'ms');
      say('million', 'memory after opening', rendererMegabytes(), 'MB');
      say('million', 'unfold', await key(page, 's', true), 'ms');
      say('million', 'memory after unfolding', rendererMegabytes(), 'MB');
    });
  },
};

const server = spawn('npx', ['tsx', join(root, 'packages/server/src/main.ts')], {
  env: { ...process.env, PORT: String(PORT) },
  stdio: 'ignore',
  detached: true,
});
try {
  for (let i = 0; i < 100; i++) {
    if (
      await fetch(ADDRESS).then(
        () => true,
        () => false,
      )
    )
      break;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  for (const name of words.length > 0 ? words : Object.keys(sections)) await sections[name]();
} finally {
  process.kill(-(server.pid as number));
}
