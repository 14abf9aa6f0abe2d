import { mkdirSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { serve } from '@hono/node-server';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { createApp } from './app.ts';

const folder = mkdtempSync(join(tmpdir(), 'hem-'));
const outside = mkdtempSync(join(tmpdir(), 'hem-outside-'));
const headers = { host: '127.0.0.1:4180' };

beforeAll(() => {
  writeFileSync(join(folder, 'index.html'), '<meta content="__CSP_NONCE__">');
  mkdirSync(join(folder, 'assets'));
  writeFileSync(join(folder, 'assets', 'app.js'), 'export {}');
  writeFileSync(join(folder, 'assets', 'app.js.br'), 'packed');
  writeFileSync(join(outside, 'secret.txt'), 'secret');
  symlinkSync(join(outside, 'secret.txt'), join(folder, 'assets', 'link.txt'));
  symlinkSync(outside, join(folder, 'assets', 'linked'));
  writeFileSync(join(folder, 'assets', 'half.js'), 'export {}');
  symlinkSync(join(outside, 'secret.txt'), join(folder, 'assets', 'half.js.gz'));
  symlinkSync(join(folder, 'assets', 'app.js'), join(folder, 'assets', 'within.js'));
});
afterAll(() => {
  for (const each of [folder, outside]) rmSync(each, { recursive: true });
});

const get = (path: string, more: Record<string, string> = {}) =>
  createApp(folder).request(path, { headers: { ...headers, ...more } });

describe('server', () => {
  it('serves every view with a policy of its own, and a nonce that is never the same', async () => {
    const [first, second] = await Promise.all([get('/'), get('/project/abc')]);
    const [a, b] = [await first.text(), await second.text()];
    expect(a).not.toBe(b);
    expect(a).not.toContain('__CSP_NONCE__');
    const policy = first.headers.get('Content-Security-Policy') ?? '';
    expect(policy).toContain("default-src 'none'");
    expect(policy).not.toContain('unsafe-inline');
    expect(policy).not.toMatch(/https?:/);
    expect(first.headers.get('Cross-Origin-Embedder-Policy')).toBe('require-corp');
  });

  it('serves the page of the build as it is now, and says so while there is none', async () => {
    const app = createApp(folder);
    const asked = () => app.request('/', { headers });
    const before = await (await asked()).text();
    const path = join(folder, 'index.html');
    const old = readFileSync(path, 'utf8');
    rmSync(path);
    expect((await asked()).status).toBe(503);
    writeFileSync(path, `${old}<!-- built again -->`);
    expect(await (await asked()).text()).toContain('built again');
    writeFileSync(path, old);
    expect(before).not.toContain('built again');
  });

  it('serves files of the build, and none outside it', async () => {
    expect((await get('/assets/app.js')).status).toBe(200);
    expect((await get('/assets/missing.js')).status).toBe(404);
    for (const path of ['/assets/%2e%2e/%2e%2e/package.json', '/package.json', '/assets/..%2findex.html']) {
      expect((await get(path)).status).toBe(404);
    }
    // What leads out of the folder and names no file is a view like any other: the app's own page.
    expect(await (await get('/assets/../../etc/passwd')).text()).toContain('<meta');
  });

  it('answers no other name and no other origin', async () => {
    expect((await get('/', { host: 'evil.example' })).status).toBe(403);
    expect((await get('/', { origin: 'http://evil.example' })).status).toBe(403);
    expect((await get('/', { origin: 'null' })).status).toBe(403);
  });

  it('takes names of hosts in any case', async () => {
    expect((await get('/', { host: 'LocalHost:4180', origin: 'http://localhost:4180' })).status).toBe(200);
    expect((await get('/', { host: 'LOCALHOST.example' })).status).toBe(403);
  });

  it('refuses with the same headers as it answers', async () => {
    const names = [
      'Content-Security-Policy',
      'Cross-Origin-Opener-Policy',
      'Cross-Origin-Embedder-Policy',
      'Cross-Origin-Resource-Policy',
      'X-Content-Type-Options',
      'Referrer-Policy',
    ];
    const refusals = [
      await get('/', { host: 'evil.example' }),
      await get('/', { origin: 'null' }),
      await get('/assets/missing.js'),
      await get('/nothing.txt'),
      await createApp(folder).request('/', { method: 'POST', headers }),
      await get('/assets/%ff'),
    ];
    for (const refusal of refusals) {
      expect(refusal.status).toBeGreaterThanOrEqual(400);
      for (const name of names) expect(refusal.headers.get(name), name).toBeTruthy();
    }
  });

  it('answers no method but those that read', async () => {
    for (const method of ['POST', 'PUT', 'DELETE', 'PATCH', 'OPTIONS', 'PROPFIND']) {
      for (const path of ['/', '/assets/app.js']) {
        const refusal = await createApp(folder).request(path, { method, headers });
        expect(refusal.status).toBe(405);
        expect(refusal.headers.get('Allow')).toBe('GET, HEAD');
      }
    }
    expect((await createApp(folder).request('/', { method: 'HEAD', headers })).status).toBe(200);
  });

  it('follows links within the build and none that lead outside, compressed or not', async () => {
    expect((await get('/assets/within.js')).status).toBe(200);
    for (const path of ['/assets/link.txt', '/assets/linked/secret.txt'])
      expect((await get(path)).status).toBe(404);
    const half = await get('/assets/half.js', { 'accept-encoding': 'gzip' });
    expect(await half.text()).not.toContain('secret');
  });

  it('sends assets compressed and for long, and not again to who has them', async () => {
    const first = await get('/assets/app.js', { 'accept-encoding': 'br' });
    expect(first.headers.get('Content-Encoding')).toBe('br');
    expect(await first.text()).toBe('packed');
    expect(first.headers.get('Cache-Control')).toContain('immutable');
    const tag = first.headers.get('ETag') ?? '';
    expect(tag).not.toBe('');
    const again = await get('/assets/app.js', { 'accept-encoding': 'br', 'if-none-match': tag });
    expect(again.status).toBe(304);
    const plain = await get('/assets/app.js', { 'if-none-match': tag });
    expect(plain.status).toBe(200);
    expect(await plain.text()).toBe('export {}');
  });

  it('does all that over a real connection as well', async () => {
    const server = serve({ fetch: createApp(folder).fetch, hostname: '127.0.0.1', port: 0 });
    await new Promise((resolve) => server.once('listening', resolve));
    const { port } = server.address() as { port: number };
    const answer = await fetch(`http://127.0.0.1:${port}/assets/%ff`);
    expect([answer.status, answer.headers.get('X-Content-Type-Options')]).toEqual([404, 'nosniff']);
    const post = await fetch(`http://127.0.0.1:${port}/`, { method: 'POST', body: 'x' });
    expect([post.status, post.headers.get('X-Content-Type-Options')]).toEqual([405, 'nosniff']);
    server.close();
  });
});
