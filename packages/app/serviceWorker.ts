import { createHash } from 'node:crypto';
import type { Plugin } from 'vite';

/**
 * Writes `sw.js` into the build: a service worker that keeps every file of it, so that each part of the app can be loaded when the server
 * is gone, or serves another build. Files of the build before stay until no page of that is left.
 */
export function serviceWorker(): Plugin {
  return {
    name: 'service-worker',
    apply: 'build',
    enforce: 'post',
    generateBundle: {
      order: 'post',
      handler(_, bundle) {
        const files = Object.keys(bundle)
          .filter((name) => /^assets\/.+\.(js|css|wasm|woff2)$/.test(name))
          .map((name) => `/${name}`)
          .sort();
        const build = createHash('sha256').update(files.join('\n')).digest('hex').slice(0, 16);
        const text = `const BUILD = ${JSON.stringify(build)};\nconst FILES = ${JSON.stringify(files)};\n(${worker.toString()})(BUILD, FILES);\n`;
        this.emitFile({ type: 'asset', fileName: 'sw.js', source: text });
      },
    },
  };
}

/** What runs in the browser; it stands by itself, for it is written out as text. */
function worker(build: string, files: readonly string[]): void {
  const scope = self as unknown as {
    readonly location: Location;
    readonly clients: { claim(): Promise<void> };
    skipWaiting(): Promise<void>;
    addEventListener(kind: string, listen: (event: never) => void): void;
  };
  const PREFIX = 'blunt-hem-build-';
  const PAGE = '/';
  const keep = async () => {
    const cache = await caches.open(PREFIX + build);
    // The page of this build, whatever it is asked for as; its parts one after the other, for nobody waits for them.
    await cache.add(new Request(PAGE, { cache: 'no-cache' }));
    for (const file of files) if (!(await cache.match(file))) await cache.add(file);
  };
  const forgetOlder = async () => {
    const builds = (await caches.keys()).filter((name) => name.startsWith(PREFIX));
    // The one before may still be open in another tab.
    for (const name of builds.slice(0, -2)) if (name !== PREFIX + build) await caches.delete(name);
  };
  const pageOf = async (request: Request) => {
    try {
      return await fetch(request);
    } catch (error) {
      const cache = await caches.open(PREFIX + build);
      const kept = await cache.match(PAGE);
      if (kept) return kept;
      throw error;
    }
  };
  scope.addEventListener('install', (event: { waitUntil(work: Promise<void>): void }) =>
    event.waitUntil(keep()),
  );
  scope.addEventListener('activate', (event: { waitUntil(work: Promise<void>): void }) =>
    event.waitUntil(forgetOlder().then(() => scope.clients.claim())),
  );
  scope.addEventListener('message', (event: { data: unknown }) => {
    if (event.data === 'take-over') void scope.skipWaiting();
  });
  scope.addEventListener(
    'fetch',
    (event: { request: Request; respondWith(answer: Promise<Response>): void }) => {
      const { request } = event;
      const { origin, pathname } = new URL(request.url);
      if (request.method !== 'GET' || origin !== scope.location.origin) return;
      if (request.mode === 'navigate') event.respondWith(pageOf(request));
      else if (pathname.startsWith('/assets/'))
        event.respondWith(caches.match(request.url).then((kept) => kept ?? fetch(request)));
    },
  );
}
