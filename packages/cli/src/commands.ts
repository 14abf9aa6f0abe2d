import { readdir, readFile, writeFile } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import {
  type HemDocument,
  openDocument,
  shellOf,
  shellsOf,
  topologyOf,
} from '@blunt-hem/core/document/document';
import { figuresOf, totalsOf } from '@blunt-hem/core/document/figures';
import { OVERLAP_LIMIT, overlappingFaces } from '@blunt-hem/core/document/overlaps';
import { applyPatch } from '@blunt-hem/core/document/patch';
import { FileError, HemError } from '@blunt-hem/core/errors';
import { readModel } from '@blunt-hem/core/formats/readModel';
import { readSeams } from '@blunt-hem/core/formats/seamFile';
import { writeGlb } from '@blunt-hem/core/formats/writeGlb';
import { writeObj } from '@blunt-hem/core/formats/writeObj';
import { examine } from '@blunt-hem/core/health/examine';
import { modelFigures } from '@blunt-hem/core/health/modelFigures';
import { vertexCount } from '@blunt-hem/core/mesh/mesh';
import type { Model } from '@blunt-hem/core/mesh/model';
import { mainKind, partsBy } from '@blunt-hem/core/mesh/parts';
import { carryOut, localContext, type Request } from '@blunt-hem/core/operations/catalogue';
import { patientOf } from '@blunt-hem/core/operations/patient';
import { verdictOf } from '@blunt-hem/core/surface/verdict';
import type { Call, CheckCall, RepairCall, UnfoldCall } from './arguments.ts';
import { readPins } from './pinFile.ts';

/** Carries out a call and returns what is printed as JSON. */
export function run(call: Call): Promise<object> {
  switch (call.command) {
    case 'info':
      return info(call.input);
    case 'measure':
      return measure(call.input);
    case 'unfold':
      return unfold(call);
    case 'check':
      return check(call);
    case 'repair':
      return repair(call);
  }
}

async function info(input: string): Promise<object> {
  const model = await opened(input);
  const document = openDocument(model);
  const { links, triangulation } = topologyOf(model);
  const verdicts = shellNumbers(document).map((s) => verdictOf(shellOf(document, s)));
  return {
    file: basename(input),
    vertices: vertexCount(model.mesh),
    faces: model.mesh.faceStart.length - 1,
    triangles: triangulation.triangleFace.length,
    parts: partsBy(mainKind(model), model, links).names,
    materials: model.materials,
    uvSets: model.uvSets.map(({ name }) => name),
    shells: verdicts.length,
    borders: verdicts.reduce((sum, { borderCount }) => sum + borderCount, 0),
    verdicts: verdicts.map(({ kind }) => kind),
  };
}

/** What the health check finds, with where: faces and vertices by number, edges by their two vertices. */
async function check({ input, tolerance }: CheckCall): Promise<object> {
  const document = openDocument(await opened(input));
  const patient = patientOf(document);
  const { edgeVertices } = patient.links;
  const findings = examine(patient, localContext, { tolerance }).map(
    ({ check: { kind, severity, effect, repair }, finding }) => ({
      kind,
      severity,
      count: finding.count,
      effect,
      repair: repair ? { does: repair.label, safe: repair.safe } : null,
      faces: [...finding.faces],
      edges: Array.from(finding.edges, (e) => [...edgeVertices.subarray(2 * e, 2 * e + 2)]),
      vertices: [...finding.vertices],
    }),
  );
  return { file: basename(input), figures: modelFigures(patient), findings };
}

async function repair({ input, out, tolerance }: RepairCall): Promise<object> {
  const document = openDocument(await opened(input));
  const request = { operation: 'repair-safe', params: { tolerance } };
  const { patch } = await carryOut(document, request, localContext);
  const { model, uvSets } = applyPatch(document, patch);
  await save(out, model, uvSets[0].uv);
  return { file: basename(input), out: basename(out), notes: patch.notes };
}

/** Writes a model in the format its name asks for. */
async function save(out: string, model: Model, uv: Float64Array): Promise<void> {
  const write = /\.glb$/i.test(out) ? writeGlb : writeObj;
  await writeFile(out, await write(model, uv)).catch(() => {
    throw new HemError('cannot-write', `${out} cannot be written: check the folder and its permissions.`);
  });
}

/** A model with the files beside it that it may name. */
async function opened(input: string): Promise<Model> {
  const companions = new Map<string, Uint8Array>();
  if (/\.gltf$/i.test(input)) {
    for (const name of await readdir(dirname(input))) {
      if (/\.(bin|png|jpe?g)$/i.test(name)) companions.set(name, await fileBytes(join(dirname(input), name)));
    }
  }
  return readModel(await fileBytes(input), basename(input), companions);
}

async function measure(input: string): Promise<object> {
  const document = openDocument(await opened(input));
  if (document.model.uvSets.length === 0)
    throw new FileError(basename(input), 'there are no UVs in this file.', 'Unfold it first.');
  return { file: basename(input), ...measured(document) };
}

async function unfold(call: UnfoldCall): Promise<object> {
  const seconds: Record<string, number> = {};
  const timed = async <T>(phase: string, work: () => Promise<T>): Promise<T> => {
    const start = performance.now();
    const result = await work();
    seconds[phase] = (performance.now() - start) / 1000;
    return result;
  };

  let document = await timed('read', async () => openDocument(await opened(call.input), { keepUvs: false }));
  const notes: string[] = [];
  const apply = async (request: Request) => {
    const { patch } = await carryOut(document, request, localContext);
    notes.push(...patch.notes);
    document = applyPatch(document, patch);
  };
  const seamText = new TextDecoder().decode(await fileBytes(call.seams));
  const edges = readSeams(seamText, basename(call.seams), topologyOf(document.model).links);
  if (edges.length > 0) await apply({ operation: 'cut', params: { edges } });
  const { pins, stays } = call.pins
    ? readPins(new TextDecoder().decode(await fileBytes(call.pins)), basename(call.pins))
    : { pins: [], stays: [] };
  const surface = call.smoothed ? 'smoothed' : 'cage';
  const { method, balance } = call;
  await timed('solve', () => apply({ operation: 'unfold', params: { method, pins, stays, surface } }));
  if (call.relax) {
    const held = pins.map(({ vertex, face }) => ({ vertex, face }));
    const params = { seconds: call.seconds, balance, held, stays, surface };
    await timed('relax', () => apply({ operation: 'relax', params }));
  }
  if (call.pack)
    await timed('pack', () =>
      apply({ operation: 'pack', params: { size: call.size, padding: call.padding } }),
    );
  await timed('write', async () => {
    const { uv } = document.uvSets[document.currentUv];
    await save(call.out, document.model, uv);
  });
  return { file: basename(call.input), out: basename(call.out), seconds, notes, ...measured(document) };
}

function measured(document: HemDocument): object {
  const figures = shellNumbers(document).map((s) => figuresOf(document, s));
  const overlaps = overlappingFaces(document).length / 2;
  const totals = totalsOf(figures);
  return {
    shellCount: figures.length,
    tileUse: totals.tileUse,
    overlaps,
    ...(overlaps >= OVERLAP_LIMIT ? { overlapsAtLeast: true } : {}),
    shells: figures.map(({ faces, stretch, verdict }) => ({
      faces,
      verdict: verdict.kind,
      l2: stretch?.l2 ?? null,
      linf: stretch?.linf ?? null,
      angleMean: stretch?.angleMean ?? null,
      areaMean: stretch?.areaMean ?? null,
      flipped: stretch?.flipped ?? null,
    })),
  };
}

const shellNumbers = (document: HemDocument): number[] =>
  Array.from({ length: shellsOf(document).shellCount }, (_, s) => s);

async function fileBytes(path: string): Promise<Uint8Array> {
  try {
    return await readFile(path);
  } catch {
    throw new FileError(basename(path), 'the file cannot be opened.', 'Check its name and folder.');
  }
}
