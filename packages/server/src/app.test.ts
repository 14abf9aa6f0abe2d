import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { createApp } from './app.ts';

const folder = mkdtempSync(join(tmpdir(), 'hem-'));
const headers = { host: '127.0.0.1:4180' };

beforeAll(() => {
  writeFileSync(join(folder, 'index.html'), '<meta content="__CSP_NONCE__">');
  mkdirSync(join(folder, 'assets'));
  writeFileSync(join(folder, 'assets', 'app.js'), 'export {}');
});
afterAll(() => rmSync(folder, { recursive: true }));

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
});
