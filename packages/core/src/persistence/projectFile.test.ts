import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { applyDelta, inverse } from '../document/delta.ts';
import { current, type HemDocument, openDocument, topologyOf, withCurrent } from '../document/document.ts';
import { emptyHistory } from '../document/history.ts';
import { setsForFile } from '../document/setsForFile.ts';
import { readModel } from '../formats/readModel.ts';
import { writeModel } from '../formats/writeModel.ts';
import { localJobs } from '../jobs/index.ts';
import { findEdge } from '../mesh/connectivity.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { memoryPersistence } from '../session/persistence.ts';
import { openSession } from '../session/session.ts';
import { seamsFromUv } from '../surface/shells.ts';
import { FIRST_TILE } from '../surface/tiles.ts';
import { keptFile, keptState, keptStates } from '../testing/kept.ts';
import { cube, sheet } from '../testing/shapes.ts';
import { type Project, readProject, writeProject, writeProjectChecked } from './projectFile.ts';
import { applyKept } from './validateDelta.ts';
import { findFault } from './validateDocument.ts';

const read = (bytes: Uint8Array) => readProject(bytes, 'x.hemproject');

/** A cube that was cut, unfolded, relaxed, robbed of a face and hidden in part, with one act taken back. */
async function worked(name = 'Cube'): Promise<Project> {
  const start = openDocument(modelFromMesh('Cube', cube()));
  const session = openSession({
    document: start,
    history: emptyHistory,
    persistence: memoryPersistence(),
    jobs: localJobs,
  });
  const { connectivity } = topologyOf(start.model);
  const lid = [4, 5, 6, 7].map((a, i, ring) => findEdge(connectivity, a, ring[(i + 1) % 4]));
  await session.perform('cut', { edges: lid });
  await session.perform('relax', {});
  await session.perform('delete-faces', { faces: [0] });
  await session.perform('hide', { faces: [1] });
  await session.undo();
  const { document, history, trials } = await session.whole();
  return { name, document, history, trials: trials.map((trial) => ({ ...trial, made: 1, seconds: 1 })) };
}

describe('a project file', () => {
  it('carries trials', async () => {
    const { trials } = (await read(await writeProject(await worked()))).project;
    expect(trials?.map(({ name, figures }) => [name, figures.length])).toEqual([['Relax all shells', 2]]);
  });

  it('comes back as it went, history and all', async () => {
    const project = await worked();
    const { project: back, loss } = await read(await writeProject(project));
    expect(loss).toBeUndefined();
    expect(back).toEqual(project);
  });

  it('keeps names of any length and any characters', async () => {
    const name = `${'Ätherische Kröte 🐸 / '.repeat(4000)}"\\\u0000`;
    const { project } = await read(await writeProject(await worked(name)));
    expect(project.name).toBe(name);
  });

  it('says when it is no project, or a part of one', async () => {
    const file = await writeProject(await worked());
    for (const part of [file.slice(0, 200), new Uint8Array(0), strToU8('Guten Tag')])
      await expect(read(part)).rejects.toThrow(/^x\.hemproject: this is not a project file, or only part/);
    expect((await read(file.slice(0, 4000))).loss).toMatch(/is damaged/);
    // Without its table of contents everything is still there.
    expect((await read(file.slice(0, -900))).project).toEqual(await worked());
  });

  it('tells a file of a later version, and what to do with it', async () => {
    const files = unzipSync(await writeProject(await worked()));
    delete files['project.sum'];
    files['project.json'] = strToU8('{"format":"blunt-hem-project","version":99,"somethingNew":{}}');
    await expect(read(zipSync(files))).rejects.toThrow(
      /written by a later Blunt Hem .* the file is as it was/,
    );
  });

  it('unpacks no more than a project may hold, and no array longer than its text says', async () => {
    const bomb = zipSync({ 'project.json': new Uint8Array(2 ** 24) }, { level: 6 });
    expect(bomb.length).toBeLessThan(2 ** 16);
    await expect(readProject(bomb, 'x.hemproject', undefined, 2 ** 20)).rejects.toThrow(/not a project file/);
    const project = await worked();
    const files = unzipSync(await writeProject(project));
    const last = `arrays/${Object.keys(files).filter((name) => name.startsWith('arrays/')).length - 1}.bin`;
    const padded = { ...files, [last]: new Uint8Array(2 ** 24), 'arrays/9999.bin': new Uint8Array(2 ** 24) };
    // With room for the project alone: what nobody declared is never unpacked.
    const { project: back, loss } = await readProject(zipSync(padded), 'x', undefined, 2 ** 20);
    expect(loss).toMatch(/one of its trials is lost/);
    expect(back.document).toEqual(project.document);
  });

  it('is not written when it would be too large to be read, and is read back before it counts', async () => {
    const project = await worked();
    await expect(writeProject(project, 2 ** 10)).rejects.toThrow(/holds 0 MB at most. Nothing was written/);
    expect(await writeProjectChecked(project)).toEqual(await writeProject(project));
    const unreadable = { ...project, history: { ...project.history, done: 99 } };
    await expect(writeProjectChecked(unreadable)).rejects.toThrow(/could not be read back/);
  });

  it('has room for what packs to a thousandth: UV sets of zeros, comments by the megabyte', async () => {
    const { mesh } = modelFromMesh(
      'Plain',
      sheet(150, 150, (i, j) => [i, j, 0]),
    );
    const model = modelFromMesh('Plain', mesh);
    const zeros = (name: string) => ({ name, uv: new Float64Array(2 * mesh.cornerVertex.length) });
    const source = { format: 'obj', bytes: strToU8('# nothing here\n'.repeat(400_000)) } as const;
    const document = openDocument({ ...model, uvSets: ['a', 'b', 'c'].map(zeros), source });
    const bytes = await writeProjectChecked({ name: 'Zeros', document, history: emptyHistory });
    const unpacked = Object.values(unzipSync(bytes)).reduce((sum, { length }) => sum + length, 0);
    expect(unpacked / bytes.length).toBeGreaterThan(30);
    const { model: back } = (await read(bytes)).project.document;
    expect(back.source).toMatchObject({ format: 'obj' });
    expect(back.uvSets).toHaveLength(3);
  });

  it('has room for a model that packs as well as any', async () => {
    const document = openDocument(
      modelFromMesh(
        'Plain',
        sheet(99, 99, (i, j) => [i, j, 0]),
      ),
    );
    const { project } = await read(await writeProject({ name: 'Plain', document, history: emptyHistory }));
    expect(project.document).toEqual(document);
  });
});

describe('a damaged project file', () => {
  /** A file of which every array that is like one of the project has a bit turned. */
  async function spoilt(of: (project: Project) => Float64Array) {
    const project = await worked();
    const files = unzipSync(await writeProject(project));
    const wanted = Buffer.from(of(project).buffer);
    const same = Object.values(files).filter((bytes) => wanted.equals(bytes));
    for (const bytes of same) bytes[0] ^= 1;
    expect(same.length).toBeGreaterThan(0);
    return { project, read: read(zipSync(files)) };
  }

  it('opens without the acts that are damaged, and tells of them', async () => {
    const project = await worked();
    const files = unzipSync(await writeProject(project));
    const { value } = JSON.parse(strFromU8(files['project.json']));
    const cut = value.history.acts[0].patch.changes[0].index.array;
    files[`arrays/${cut}.bin`][0] ^= 1;
    const { project: back, loss } = await read(zipSync(files));
    expect(loss).toMatch(/seams and UVs are whole; one act can no longer be taken back/);
    expect(back.document).toEqual(project.document);
    expect(back.history.acts).toEqual(project.history.acts.slice(1));
    expect(back.history.done).toBe(project.history.done - 1);
  });

  it('opens with what is whole of a damaged document', async () => {
    const { project, read } = await spoilt(({ document }) => document.uvSets[0].uv);
    const { project: back, loss } = await read;
    expect(loss).toMatch(/Its model was read/);
    expect(back.document.seams).toEqual(project.document.seams);
    expect(back.document.model).toEqual(project.document.model);
    expect(back.document.uvSets[0].uv.every(Number.isNaN)).toBe(true);
    expect(back.history.acts).toEqual([]);
  });

  it('opens without a trial that is damaged, and says so', async () => {
    const { project, read } = await spoilt(({ trials = [] }) => trials[0].shells[0].uv);
    const { project: back, loss } = await read;
    expect(loss).toMatch(/one of its trials is lost. All the rest is whole/);
    expect(back).toEqual({ ...project, trials: [] });
  });

  it('opens as it stands, with a warning, when the mesh itself is damaged', async () => {
    const { project, read } = await spoilt(({ document }) => document.model.mesh.positions);
    const { project: back, loss } = await read;
    expect(loss).toMatch(/its model too: it was read as it stands, and may be bent/);
    expect(back.document.seams).toEqual(project.document.seams);
  });

  it('is refused when there is no mesh in it', async () => {
    const files = unzipSync(await writeProject(await worked()));
    const arrays = Object.keys(files).filter((name) => name.startsWith('arrays/'));
    for (const name of arrays) files[name] = new Uint8Array(1);
    await expect(read(zipSync(files))).rejects.toThrow(/the model in it is damaged/);
  });

  it('opens whole when nothing but a checksum differs, and says so', async () => {
    const project = await worked();
    const text = strFromU8(unzipSync(await writeProject(project))['project.json']);
    const anArray = text.indexOf('"checksum":"') + 14;
    const changed = `${text.slice(0, anArray)}${text[anArray] === '0' ? '1' : '0'}${text.slice(anArray + 1)}`;
    const wrongs: Record<string, Uint8Array>[] = [
      { 'project.sum': strToU8('0'.repeat(16)) },
      { 'project.json': strToU8(changed) },
    ];
    for (const wrong of wrongs) {
      const files = { ...unzipSync(await writeProject(project)), ...wrong };
      const { project: back, loss } = await read(zipSync(files));
      expect(loss).toMatch(/a checksum differs. All of it was read/);
      expect(back).toEqual(project);
    }
  });

  it('believes no count of acts', async () => {
    const project = await worked();
    const wrong = await writeProject({ ...project, history: { ...project.history, done: 9 } });
    const { project: back, loss } = await read(wrong);
    expect(loss).toMatch(/5 acts can no longer be taken back/);
    expect(back).toEqual({ ...project, history: emptyHistory });
  });

  it('believes no index: acts that do not fit the model go, with those beyond them', async () => {
    const project = await worked();
    const [first, second, ...others] = project.history.acts;
    for (const acts of [
      [second, first, ...others],
      [first, ...others],
    ]) {
      const wrong = await writeProject({ ...project, history: { acts, done: acts.length - 1 } });
      const { project: back } = await read(wrong);
      expect(back.document).toEqual(project.document);
      // Whatever is left can be taken back to the end.
      back.history.acts
        .slice(0, back.history.done)
        .reduceRight((d, { delta }) => applyDelta(d, inverse(delta)), back.document);
      expect(back.history.acts.length).toBeLessThan(acts.length);
    }
  });
});

describe('project files of earlier versions', () => {
  it.each([1, 2, 3, 4, 5, 6, 7])(
    'version %i opens, with every act to take back and do again',
    async (version) => {
      const { project, loss } = await read(keptFile(`project-v${version}.hemproject`));
      expect(loss).toBeUndefined();
      const { acts, done } = project.history;
      expect([acts.length, done]).toEqual([6, 5]);
      expect(keptState(project.document)).toEqual(keptStates[5]);
      expect(keptState(applyDelta(project.document, acts[5].delta))).toEqual(keptStates[6]);
      let { document } = project;
      for (let i = done; i-- > 0; ) {
        document = applyDelta(document, inverse(acts[i].delta));
        expect(keptState(document)).toEqual(keptStates[i]);
        expect(findFault(document)).toBeUndefined();
      }
      for (let i = 0; i < done; i++) document = applyDelta(document, acts[i].delta);
      expect(document).toEqual(project.document);
    },
  );

  it('version 9 with two UV sets opens: the second has seams where it breaks, before and after every act', async () => {
    const { project, loss } = await read(keptFile('two-sets-v9.hemproject'));
    expect(loss).toBeUndefined();
    const { acts, done } = project.history;
    const states = [project.document];
    for (let i = done; i-- > 0; ) states.push(applyDelta(states[states.length - 1], inverse(acts[i].delta)));
    for (const state of states) {
      expect(findFault(state)).toBeUndefined();
      expect(state.uvSets.map(({ id, name }) => [id, name])).toEqual([
        [0, 'Skin'],
        [1, 'Light'],
      ]);
      const light = withCurrent(state, 1);
      const { connectivity } = topologyOf(light.model);
      expect(light.seams).toEqual(seamsFromUv(connectivity, current(light).uv));
      expect(light.placed).toBe(1);
    }
    let again = states[states.length - 1];
    for (let i = 0; i < done; i++) again = applyDelta(again, acts[i].delta);
    expect(again).toEqual(project.document);
  });

  it('version 14, where libraries of an OBJ file were not kept, opens without them', async () => {
    const { project, loss } = await read(keptFile('no-libraries-v14.hemproject'));
    expect(loss).toBeUndefined();
    const { model } = project.document;
    expect(model.source).toMatchObject({ format: 'obj' });
    const files = await writeModel(model, setsForFile(project.document), 'leaf.obj');
    expect(files.map(({ name }) => name)).toEqual(['leaf.obj']);
  });

  it('keeps libraries of an OBJ file, and PLY files, byte for byte', async () => {
    const library = strToU8('newmtl Moss\nNs 12\n');
    const obj = strToU8('mtllib a.mtl\nv 0 0 0\nv 1 0 0\nv 0 1 0\nusemtl Moss\nf 1 2 3\n');
    const ply = strToU8(
      'ply\nformat ascii 1.0\nelement vertex 3\nproperty float x\nproperty float y\nproperty float z\nelement face 1\nproperty list uchar int vertex_indices\nend_header\n0 0 0\n1 0 0\n0 1 0\n3 0 1 2\n',
    );
    for (const [name, bytes] of [
      ['a.obj', obj],
      ['a.ply', ply],
    ] as const) {
      const model = await readModel(bytes, name, new Map([['a.mtl', library]]));
      const document = openDocument(model);
      const { project } = await read(await writeProjectChecked({ name, document, history: emptyHistory }));
      expect(findFault(project.document)).toBeUndefined();
      expect(project.document.model.source).toEqual(model.source);
    }
  });

  it('version 13, where every grain line ran up on the model, opens with the same marks', async () => {
    const { project, loss } = await read(keptFile('grain-up-v13.hemproject'));
    expect(loss).toBeUndefined();
    expect(findFault(project.document)).toBeUndefined();
    expect([...project.document.grain].filter(Boolean)).toEqual([1, 1, 1, 1]);
  });

  it('version 12, where no shells were kept together, opens with none, before and after every act', async () => {
    const { project, loss } = await read(keptFile('no-groups-v12.hemproject'));
    expect(loss).toBeUndefined();
    const { acts, done } = project.history;
    let { document } = project;
    for (let i = done; i-- > 0; ) {
      document = applyKept(document, inverse(acts[i].delta));
      expect(findFault(document)).toBeUndefined();
      for (const { id } of document.uvSets)
        expect(withCurrent(document, id).groups).toEqual(new Uint16Array(document.stale.length));
    }
    for (let i = 0; i < done; i++) document = applyKept(document, acts[i].delta);
    expect(document).toEqual(project.document);
  });

  it('version 11, where materials were names, opens with what they are, before and after every act', async () => {
    const { project, loss } = await read(keptFile('material-names-v11.hemproject'));
    expect(loss).toBeUndefined();
    const { acts, done } = project.history;
    let { document } = project;
    const bare = { name: 'Bare' };
    expect(document.model.materials).toEqual([{ name: 'Fern', colour: [0.25, 0.5, 0.125] }, bare]);
    for (let i = done; i-- > 0; ) document = applyKept(document, inverse(acts[i].delta));
    expect(document.model.materials).toEqual([{ name: 'Moss', colour: [0.25, 0.5, 0.125] }, bare]);
    expect(document.model.images).toEqual([]);
    for (let i = 0; i < done; i++) document = applyKept(document, acts[i].delta);
    expect(document).toEqual(project.document);
  });

  it('version 10, where the texture was a limit, opens with tiles, before and after every act', async () => {
    const { project, loss } = await read(keptFile('texture-in-limits-v10.hemproject'));
    expect(loss).toBeUndefined();
    const { acts, done } = project.history;
    const textureOf = ({ tiles }: Pick<HemDocument, 'tiles'>) =>
      tiles.map(({ height, padding }) => [height, padding]);
    let { document } = project;
    expect(textureOf(document)).toEqual([[1024, 4]]);
    expect(document.limits).not.toHaveProperty('texture');
    expect(document.limits.stretch).toBe(1.1);
    for (let i = done; i-- > 0; ) {
      document = applyDelta(document, inverse(acts[i].delta));
      expect(findFault(document)).toBeUndefined();
    }
    for (let i = 0; i < done; i++) document = applyDelta(document, acts[i].delta);
    // A set that is added anew has the usual texture: the act does not tell which.
    expect({ ...document, tiles: project.document.tiles }).toEqual(project.document);
    expect(document.currentUv).toBe(1);
    expect(findFault(withCurrent(document, 0))).toBeUndefined();
    // And what was kept is taken as sound when it is read back act by act.
    for (let i = done; i-- > 0; ) document = applyKept(document, inverse(acts[i].delta));
    expect(document.tiles).toEqual([{ ...FIRST_TILE, width: 1024, height: 1024, padding: 4 }]);
    expect(document.limits.stretch).toBe(1.25);
  });
});
