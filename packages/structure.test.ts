import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
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
    'pack',
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
    'persistence',
    'bake',
    'jobs',
    'derived',
    'selectors',
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

/** Files of the project in a folder. */
const listed = (folder: string): string[] =>
  execFileSync('git', ['ls-files', '--cached', '--others', '--exclude-standard', folder])
    .toString()
    .split('\n')
    .filter((file) => file !== '' && existsSync(file));
const tracked = listed('packages').filter((file) => /\.tsx?$/.test(file) && !/\.test\.tsx?$/.test(file));

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

describe('core', () => {
  it('keeps nothing in a file from one call to the next: two sessions would disturb each other', () => {
    const stateful = tracked.filter(
      (file) => file.startsWith('packages/core/src/') && /^(export )?let /m.test(readFileSync(file, 'utf8')),
    );
    expect(stateful).toEqual([]);
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

interface Manifest {
  readonly dependencies?: Readonly<Record<string, string>>;
  readonly devDependencies?: Readonly<Record<string, string>>;
}
const manifest = (folder: string): Manifest => JSON.parse(readFileSync(join(folder, 'package.json'), 'utf8'));

/** Names of the packages that a file imports, at once or later. */
function packagesIn(text: string): string[] {
  const imports =
    /^(?:import|export)\b[^'"]*?from '([^'.][^']*)'|^import '([^'.][^']*)'|\bimport\('([^'.][^']*)'\)/gm;
  return [...text.matchAll(imports)]
    .map(([, ...specs]) => specs.find(Boolean) as string)
    .filter((spec) => !spec.startsWith('node:') && !spec.startsWith('virtual:'))
    .map((spec) =>
      spec
        .split('/')
        .slice(0, spec.startsWith('@') ? 2 : 1)
        .join('/'),
    );
}

describe.each(['app', 'cli', 'core', 'kernel', 'server'])('the package %s', (name) => {
  const folder = `packages/${name}`;
  const { dependencies = {}, devDependencies = {} } = manifest(folder);
  const files = listed(folder).filter((file) => /\.(tsx?|mjs)$/.test(file));
  /** Only needed to build and test: what is built does not have it. */
  const isTooling = (file: string) =>
    /\.test\.tsx?$|\/(reference|testing)\/|config|faultyStore|kernel\/build|app\/serviceWorker/.test(file);
  const used = (of: readonly string[]) =>
    new Set(of.flatMap((file) => packagesIn(readFileSync(file, 'utf8'))));
  const built = used(files.filter((file) => !isTooling(file)));
  const tooling = used(files.filter(isTooling));

  it('names what it is built of, and nothing else', () => {
    expect([...built].filter((each) => !(each in dependencies))).toEqual([]);
    expect(Object.keys(dependencies).filter((each) => !built.has(each))).toEqual([]);
  });

  it('has what it is tested with from itself or from the root', () => {
    const root = manifest('.');
    const known = { ...dependencies, ...devDependencies, ...root.dependencies, ...root.devDependencies };
    expect([...tooling].filter((each) => !(each in known))).toEqual([]);
    const kinds = (each: string) => each.replace('@types/', '').replace('__', '/');
    expect(
      Object.keys(devDependencies).filter(
        (each) => !tooling.has(each) && !(each.startsWith('@types/') && kinds(each) in dependencies),
      ),
    ).toEqual([]);
  });
});
