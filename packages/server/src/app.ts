import { randomBytes } from 'node:crypto';
import { readFileSync, realpathSync } from 'node:fs';
import { join, relative, sep } from 'node:path';
import { serveStatic } from '@hono/node-server/serve-static';
import { Hono, type MiddlewareHandler } from 'hono';
import { etag } from 'hono/etag';

const NONCE_MARK = '__CSP_NONCE__';

/**
 * Serves the built app and nothing outside its folder.
 *
 * @param folder  the build, with `index.html` in it
 */
export function createApp(folder: string): Hono {
  const app = new Hono();

  app.use(secured);
  app.use(async (context, next) => {
    // Only pages of this address, named by a loopback name, are answered: no other site may reach in.
    const host = (context.req.header('host') ?? '').toLowerCase();
    if (!/^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/.test(host)) return context.text('Not here.', 403);
    const origin = context.req.header('origin')?.toLowerCase();
    if (origin !== undefined && origin !== `http://${host}`) return context.text('Not from there.', 403);
    if (context.req.method !== 'GET' && context.req.method !== 'HEAD')
      return context.text('Only to be read.', 405, { Allow: 'GET, HEAD' });
    return next();
  });

  const root = relative(process.cwd(), folder) || '.';
  const files = (caching: string) =>
    [kept(caching), etag(), insideOnly(folder), serveStatic({ root, precompressed: true })] as const;
  // Their names change with their contents.
  app.use('/assets/*', ...files('public, max-age=31536000, immutable'));
  app.use('/demo/*', ...files('no-cache'));
  app.use('/favicon.svg', ...files('no-cache'));
  app.use('/sw.js', ...files('no-cache'));

  // Every other address is a view of the app.
  app.get('*', (context) => {
    if (/^\/(assets|demo)\/|\.[a-z0-9]+$/i.test(context.req.path)) return context.text('Not found.', 404);
    // Read anew each time: the app may be built again while it is served.
    const page = pageIn(folder);
    if (page === undefined)
      return context.text('The app is being built. Load this page again in a moment.', 503);
    const nonce = randomBytes(16).toString('base64');
    context.header('Content-Security-Policy', policy(nonce));
    context.header('Cache-Control', 'no-store');
    return context.html(page.replaceAll(NONCE_MARK, nonce));
  });
  return app;
}

function pageIn(folder: string): string | undefined {
  try {
    return readFileSync(join(folder, 'index.html'), 'utf8');
  } catch {
    return undefined;
  }
}

/** The same headers on every answer, whatever it is. */
const secured: MiddlewareHandler = async (context, next) => {
  await next();
  context.header('Cross-Origin-Opener-Policy', 'same-origin');
  context.header('Cross-Origin-Embedder-Policy', 'require-corp');
  context.header('Cross-Origin-Resource-Policy', 'same-origin');
  context.header('X-Content-Type-Options', 'nosniff');
  context.header('Referrer-Policy', 'no-referrer');
  if (!context.res.headers.has('Content-Security-Policy'))
    context.header('Content-Security-Policy', policy());
};

/** How long whoever gets a file may keep it. */
const kept =
  (caching: string): MiddlewareHandler =>
  async (context, next) => {
    await next();
    if (context.res.status < 400) context.header('Cache-Control', caching);
  };

/** What of a file there may be: it, and the same compressed. */
const FORMS = ['', '.br', '.gz', '.zst'];

/** Answers 404 for a file that a link leads out of the folder, in whatever form it would be sent. */
const insideOnly =
  (folder: string): MiddlewareHandler =>
  async (context, next) => {
    const root = realpathSync(folder) + sep;
    const places = FORMS.map((form) => realPlace(folder, context.req.path, form));
    const outside = places.some((place) => place !== undefined && !place.startsWith(root));
    return outside ? context.text('Not found.', 404) : next();
  };

/** Where the path of a request leads in the end; undefined when nowhere. */
function realPlace(folder: string, path: string, form: string): string | undefined {
  try {
    return realpathSync(join(folder, decodeURIComponent(path) + form));
  } catch {
    return undefined;
  }
}

/** Everything from here, nothing from elsewhere; styles that components make at run time carry the nonce. */
function policy(nonce?: string): string {
  return [
    "default-src 'none'",
    "script-src 'self' 'wasm-unsafe-eval'",
    `style-src 'self'${nonce ? ` 'nonce-${nonce}'` : ''}`,
    "img-src 'self' blob: data:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self'",
    "base-uri 'none'",
    "form-action 'none'",
    "frame-ancestors 'none'",
  ].join('; ');
}
