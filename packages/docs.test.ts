import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { dirname, join, normalize } from 'node:path';
import { describe, expect, it } from 'vitest';
import { generatedDocs } from '../scripts/docs.ts';

const markdown = execFileSync('git', ['ls-files', '*.md']).toString().trim().split('\n');

describe('the docs', () => {
  it.each(generatedDocs().map((each) => [each.file, each] as const))(
    '%s has its tables as the lists in the code have them: npm run docs writes them',
    (_, { now, wanted }) => {
      expect(now).toBe(wanted);
    },
  );

  it.each(markdown)('%s leads only to files that are there', (file) => {
    const text = readFileSync(file, 'utf8');
    const targets = [...text.matchAll(/\]\(([^)#\s]+)[^)]*\)/g)].map(([, target]) => target);
    const missing = targets.filter(
      (target) => !/^https?:/.test(target) && !existsSync(normalize(join(dirname(file), target))),
    );
    expect(missing).toEqual([]);
  });

  it('say in the README what every picture is of, and there are no others', () => {
    const shown = new Set(
      [...readFileSync('README.md', 'utf8').matchAll(/docs\/screenshots\/([\w-]+\.png)/g)].map(
        ([, name]) => name,
      ),
    );
    const there = execFileSync('git', ['ls-files', 'docs/screenshots']).toString().trim().split('\n');
    expect(there.map((path) => path.split('/').pop()).filter((name) => !shown.has(name as string))).toEqual(
      [],
    );
    expect(there.length).toBeLessThan(20);
    expect(readFileSync('README.md', 'utf8').split('\n').length).toBeLessThan(120);
  });
});
