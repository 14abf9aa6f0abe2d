import 'fake-indexeddb/auto';
import { openDocument } from '@blunt-hem/core/document/document';
import { emptyHistory } from '@blunt-hem/core/document/history';
import { modelFromMesh } from '@blunt-hem/core/mesh/model';
import { type Project, readProject, writeProject } from '@blunt-hem/core/persistence/projectFile';
import { keptFile } from '@blunt-hem/core/testing/kept';
import { cube } from '@blunt-hem/core/testing/shapes';
import { BlobReader, BlobWriter, TextReader, Uint8ArrayReader, ZipWriter } from '@zip.js/zip.js';
import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { type BackedUp, readBackup, writeBackup } from './backup.ts';
import { databaseNamed, openDatabase } from './database.ts';
import { type Restored, restoreProject } from './rackBackup.ts';

const START = openDocument(modelFromMesh('Cube', cube()));
const PLAIN: Project = { name: 'plain', document: START, history: emptyHistory };
const LONG = 'a/b: “two”'.repeat(300);
const facts = (name: string) => ({ id: `id-${name.length}`, name, created: 1, updated: 2 });

async function* some(list: readonly BackedUp<Uint8Array>[]) {
  yield* list;
}

interface Got {
  readonly names: readonly string[];
  readonly projects: readonly BackedUp<Project>[];
  readonly losses: readonly string[];
}

async function read(file: Blob): Promise<Got> {
  const projects: BackedUp<Project>[] = [];
  const losses = await readBackup(file, 'x.hemrack', async (each) => {
    projects.push(each);
  });
  return { names: projects.map((each) => each.facts.name), projects, losses };
}

/** Three projects, the second with a history, a picture and a view of its own. */
let bytes: Uint8Array<ArrayBuffer>;
let history: Project['history'];
/** The first of them as a file by itself. */
let file: Uint8Array;
beforeAll(async () => {
  const { project: worked } = await readProject(keptFile('project-v7.hemproject'), 'x');
  ({ history } = worked);
  const projects = [PLAIN, { ...worked, name: 'worked' }, { ...PLAIN, name: LONG }];
  const picture = new Blob([Uint8Array.of(1, 2, 3)], { type: 'image/png' });
  const list = projects.map(async (project) => ({
    facts: facts(project.name),
    content: await writeProject(project),
    ...(project.name === 'worked' && { picture }),
  }));
  const contents = await Promise.all(list);
  file = contents[0].content;
  const backup = await writeBackup(some(contents));
  expect(backup.projects).toBe(3);
  bytes = new Uint8Array(await backup.file.arrayBuffer());
});

describe('a backup', () => {
  it('gives every project back, whatever its name', async () => {
    const { names, projects, losses } = await read(new Blob([bytes]));
    expect(names).toEqual(['plain', 'worked', LONG]);
    expect(losses).toEqual([]);
    expect(projects.map((each) => each.facts)).toEqual(names.map(facts));
    expect(projects[1].content.history).toEqual(history);
    expect(projects[1].picture?.size).toBe(3);
  });

  it('cut short anywhere gives every project that is in it, under its own name and dates', async () => {
    const whole = await read(new Blob([bytes.subarray(0, bytes.length - 30)]));
    expect(whole.projects.map((each) => each.facts)).toEqual(['plain', 'worked', LONG].map(facts));
    expect(whole.projects[1].content.history).toEqual(history);
    expect(whole.projects[1].picture?.size).toBe(3);
    expect(whole.losses).toEqual(['x.hemrack is damaged, or only part of a backup: this is what is in it.']);
    let last = 3;
    for (let part = 0.95; part > 0.1; part -= 0.05) {
      const cut = new Blob([bytes.subarray(0, Math.floor(part * bytes.length))]);
      const { names, losses } = await read(cut);
      expect(names).toEqual(['plain', 'worked', LONG].slice(0, names.length));
      expect(names.length).toBeLessThanOrEqual(last);
      expect(losses.length).toBeGreaterThan(0);
      last = names.length;
    }
    expect(last).toBeLessThan(3);
  });

  it('with any bit turned gives every project as whole as its own file would be', async () => {
    const turns = fc.tuple(fc.noBias(fc.nat(bytes.length - 1)), fc.nat(7));
    await fc.assert(
      fc.asyncProperty(turns, async ([at, bit]) => {
        const copy = bytes.slice();
        copy[at] ^= 1 << bit;
        const { projects, losses } = await read(new Blob([copy]));
        // At most one is hurt, and then it is there in part or told of by name.
        expect(projects.length).toBeGreaterThanOrEqual(2);
        if (projects.length < 3) expect(losses.join(' ')).toMatch(/was left out/);
        const intact = projects.filter(({ content }) => content.document.seams.length === 12);
        expect(intact.length).toBeGreaterThanOrEqual(projects.length - 2);
      }),
      { numRuns: 150 },
    );
  });

  it('is as strong as the files in it: what opens by itself opens from there', async () => {
    const start = bytes.findIndex((_, i) => file.every((byte, k) => bytes[i + k] === byte));
    let both = 0;
    for (let at = 0; at < file.length; at += 7) {
      const copy = file.slice();
      copy[at] ^= 4;
      const alone = await readProject(copy, 'x').catch(() => undefined);
      const inBackup = bytes.slice();
      inBackup[start + at] ^= 4;
      const { names, projects } = await read(new Blob([inBackup]));
      if (!alone) continue;
      both++;
      expect(names[0]).toBe('plain');
      expect(projects[0].content.document).toEqual(alone.project.document);
    }
    expect(both).toBeGreaterThan(50);
  });

  it('makes nothing for a file in it that says it is larger than the backup', async () => {
    const copy = bytes.slice();
    const view = new DataView(copy.buffer);
    let changed = 0;
    for (let i = 0; i + 46 < copy.length; i++) {
      // In the directory: the sizes of the project files (PKWARE, 4.3.12).
      const name = new TextDecoder().decode(copy.subarray(i + 46, i + 46 + view.getUint16(i + 28, true)));
      if (view.getUint32(i, true) !== 0x02014b50 || !name.startsWith('projects/')) continue;
      view.setUint32(i + 20, 0xfffffff0, true);
      view.setUint32(i + 24, 0xfffffff0, true);
      changed++;
    }
    expect(changed).toBe(3);
    expect((await read(new Blob([copy]))).names).toEqual(['plain', 'worked', LONG]);
  });

  it('is refused in a sentence when it is none, or of a later version', async () => {
    const empty = (await writeBackup(some([]))).file;
    const later = (await empty.text()).replace('"version":1', '"version":9');
    await expect(read(new Blob(['nothing']))).rejects.toThrow(/not a backup/);
    await expect(read(new Blob([later]))).rejects.toThrow(/not a backup|later Blunt Hem/);
  });

  it('of an earlier version, with nothing before its projects, is read as well', async () => {
    const zip = new ZipWriter(new BlobWriter('application/zip'), { level: 0, useWebWorkers: false });
    const name = 'projects/0001 plain.hemproject';
    await zip.add(name, new Uint8ArrayReader(await writeProject(PLAIN)));
    const list = { format: 'blunt-hem-rack', version: 1, projects: [{ file: name, facts: facts('plain') }] };
    await zip.add('rack.json', new TextReader(JSON.stringify(list)));
    const old = await zip.close();
    expect((await read(old)).names).toEqual(['plain']);
    const { names, losses } = await read(old.slice(0, old.size - 40));
    expect(names).toEqual(['plain']);
    expect(losses).toHaveLength(1);
  });

  it('with an id, a view or a list that is none of ours takes in the project all the same', async () => {
    const zip = new ZipWriter(new BlobWriter('application/zip'), { level: 0, useWebWorkers: false });
    const content = await writeProject(PLAIN);
    const deep = `${'{"a":'.repeat(20_000)}1${'}'.repeat(20_000)}`;
    const listed = [];
    for (const [i, id] of ['a/b', '', '../../etc', 'x'.repeat(500)].entries()) {
      const name = `projects/000${i} plain.hemproject`;
      await zip.add(name, new Uint8ArrayReader(content));
      listed.push(`{"file":"${name}","facts":${JSON.stringify({ ...facts('plain'), id })},"view":${deep}}`);
    }
    listed.push('{"file":7}', 'null');
    const text = `{"format":"blunt-hem-rack","version":1,"projects":[${listed.join(',')}]}`;
    await zip.add('rack.json', new BlobReader(new Blob([text])));
    const { names, projects } = await read(await zip.close());
    expect(names).toEqual(['plain', 'plain', 'plain', 'plain']);
    for (const { facts, view } of projects) {
      expect(facts.id).toMatch(/^[\w-]{1,100}$/);
      expect(view).toBeUndefined();
    }
  });
});

describe('putting a backup back', () => {
  it('twice adds nothing the second time, also of what was changed here since', async () => {
    const database = await openDatabase(databaseNamed('restored'));
    const { projects } = await read(new Blob([bytes]));
    const restore = async (): Promise<Restored> => {
      let told: Restored = { projects: 0, already: 0, losses: [] };
      for (const each of projects) told = await restoreProject(database, each, told);
      return told;
    };
    expect(await restore()).toEqual({ projects: 3, already: 0, losses: [] });
    expect(await restore()).toEqual({ projects: 0, already: 3, losses: [] });
    await database.projects.update(projects[0].facts.id, { updated: 99 });
    expect(await restore()).toEqual({ projects: 1, already: 2, losses: [] });
    expect(await restore()).toEqual({ projects: 0, already: 3, losses: [] });
    expect(await database.projects.count()).toBe(4);
    // The copy, worked on, is no copy any more.
    await database.projects.filter(({ from }) => from !== undefined).modify({ updated: 100 });
    expect((await restore()).projects).toBe(1);
    await database.delete();
  });
});
