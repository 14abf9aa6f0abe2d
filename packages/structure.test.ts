import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { describe, expect, it } from 'vitest';

/**
 * Folders from the ground up, those of a line beside one another in what they may import: only what is further up in this list. Types
 * count like everything else; what is loaded later, by `import()`, does not. docs/architecture.md draws it.
 */
const LAYERS: Readonly<Record<string, readonly string[]>> = {
  'packages/core/src': [
    'mesh',
    'linear',
    'surface',
    'measure',
    'relax',
    'unfold',
    'arrange',
    'select',
    'symmetry',
    'seams',
    'health',
    'document',
    'formats',
    'inspect',
    'propose',
    'projections',
    'trials',
    'keeping',
    'jobs',
    'derived',
    'operations',
    'questions',
    'session',
    'testing',
  ],
  'packages/app/src': [
    'theme',
    'storage',
    'worker',
    'loading',
    'store',
    'rack',
    'bench',
    'trials',
    'deliver',
    'help',
  ],
};

const tracked = execFileSync('git', ['ls-files', '--cached', '--others', '--exclude-standard', 'packages'])
  .toString()
  .split('\n')
  .filter((file) => /\.tsx?$/.test(file) && !/\.test\.tsx?$/.test(file));

/** Every file with what it imports of the same package, types too. */
function importsWithin(root: string): Map<string, string[]> {
  const files = tracked.filter((file) => file.startsWith(`${root}/`));
  return new Map(
    files.map((file) => {
      const text = readFileSync(file, 'utf8');
      const specs = [...text.matchAll(/(?:from|import)\s*'(\.[^']*)'/g)].map(([, spec]) => spec);
      return [file, specs.map((spec) => join(dirname(file), spec)).filter((to) => to.startsWith(`${root}/`))];
    }),
  );
}

/** A circle of files that import one another; undefined where there is none. */
function circleIn(imports: ReadonlyMap<string, readonly string[]>): string[] | undefined {
  const done = new Set<string>();
  const follow = (file: string, way: readonly string[]): string[] | undefined => {
    if (way.includes(file)) return [...way.slice(way.indexOf(file)), file];
    if (done.has(file)) return undefined;
    for (const to of imports.get(file) ?? []) {
      const circle = follow(to, [...way, file]);
      if (circle) return circle;
    }
    done.add(file);
    return undefined;
  };
  for (const file of imports.keys()) {
    const circle = follow(file, []);
    if (circle) return circle;
  }
  return undefined;
}

describe.each(Object.entries(LAYERS))('the folders of %s', (root, layers) => {
  const imports = importsWithin(root);
  const folderOf = (file: string) => file.slice(root.length + 1).split('/');
  const layerOf = (file: string) => {
    const [folder, inside] = folderOf(file);
    // What lies beside the folders is the ground of the core, and the top of the app.
    if (inside === undefined) return root.endsWith('core/src') ? -1 : layers.length;
    return layers.indexOf(folder);
  };

  it('are all in the list', () => {
    const folders = [...imports.keys()].map(folderOf).filter((parts) => parts.length > 1);
    expect(folders.length).toBeGreaterThan(50);
    expect([...new Set(folders.map(([folder]) => folder))].sort()).toEqual([...layers].sort());
  });

  it('import what lies below them only', () => {
    const upwards = [...imports].flatMap(([file, to]) =>
      to.filter((other) => layerOf(other) > layerOf(file)).map((other) => `${file} → ${other}`),
    );
    expect(upwards).toEqual([]);
  });

  it('have no circle of files', () => {
    expect(circleIn(imports)).toBeUndefined();
  });
});

describe('a circle', () => {
  it('is found', () => {
    const imports = new Map([
      ['a', ['b']],
      ['b', ['c', 'd']],
      ['c', []],
      ['d', ['b']],
    ]);
    expect(circleIn(imports)).toEqual(['b', 'd', 'b']);
  });
});
