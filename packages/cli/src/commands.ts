import { readFile, writeFile } from 'node:fs/promises';
import { basename } from 'node:path';
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
import { vertexCount } from '@blunt-hem/core/mesh/mesh';
import { carryOut, localContext, type Request } from '@blunt-hem/core/operations/catalogue';
import { verdictOf } from '@blunt-hem/core/seams/verdict';
import type { Call, UnfoldCall } from './arguments.ts';
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
  }
}

async function info(input: string): Promise<object> {
  const model = await readModel(await fileBytes(input), basename(input));
  const document = openDocument(model);
  const { parts, triangulation } = topologyOf(model);
  const verdicts = shellNumbers(document).map((s) => verdictOf(shellOf(document, s)));
  return {
    file: basename(input),
    vertices: vertexCount(model.mesh),
    faces: model.mesh.faceStart.length - 1,
    triangles: triangulation.triangleFace.length,
    parts: parts.names,
    materials: model.materials,
    uvSets: model.uvSets.map(({ name }) => name),
    shells: verdicts.length,
    borders: verdicts.reduce((sum, { borderCount }) => sum + borderCount, 0),
    verdicts: verdicts.map(({ kind }) => kind),
  };
}

async function measure(input: string): Promise<object> {
  const document = openDocument(await readModel(await fileBytes(input), basename(input)));
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

  let document = await timed('read', async () =>
    openDocument(await readModel(await fileBytes(call.input), basename(call.input)), { keepUvs: false }),
  );
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
    const write = /\.glb$/i.test(call.out) ? writeGlb : writeObj;
    const bytes = await write(document.model, uv);
    await writeFile(call.out, bytes).catch(() => {
      throw new HemError(
        'cannot-write',
        `${call.out} cannot be written: check the folder and its permissions.`,
      );
    });
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
