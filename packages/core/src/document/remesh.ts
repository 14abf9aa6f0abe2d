import { connectivity } from '../mesh/connectivity.ts';
import type { MeshEdit } from '../mesh/edit.ts';
import type { Model, UvSet } from '../mesh/model.ts';
import { seamsFromUv } from '../surface/shells.ts';
import { type HemDocument, topologyOf } from './document.ts';

/**
 * The document with another mesh, and everything taken along: names, materials, UVs, seams, marks and what is hidden. UVs
 * keep their places; where faces that lie apart in the flat come to share an edge, the edge becomes a seam. Faces that were
 * turned over are marked stale, for their UVs are mirrored now. The file can no longer be repeated to the byte: exports are
 * composed anew.
 */
export function remeshed(document: HemDocument, edit: MeshEdit): HemDocument {
  const { faceSource, cornerSource, cornerShift } = edit;
  const { nextCorner } = topologyOf(document.model).links;
  const old = document.model;
  const perFace = <T extends Uint32Array | Int32Array | Uint8Array>(list: T): T => {
    const next = new (list.constructor as new (length: number) => T)(faceSource.length);
    for (let f = 0; f < next.length; f++) next[f] = list[faceSource[f]];
    return next;
  };
  const perCorner = (set: UvSet): UvSet => {
    const uv = new Float64Array(2 * cornerSource.length);
    for (let c = 0; c < cornerSource.length; c++) {
      const from = 2 * cornerSource[c];
      const to = 2 * nextCorner[cornerSource[c]];
      const shift = cornerShift?.[c] ?? 0;
      for (let k = 0; k < 2; k++) {
        const start = set.uv[from + k];
        uv[2 * c + k] = shift === 0 ? start : start + shift * (set.uv[to + k] - start);
      }
    }
    return { ...set, uv };
  };
  const whole: Model = {
    ...old,
    mesh: edit.mesh,
    faceObject: perFace(old.faceObject),
    faceGroup: perFace(old.faceGroup),
    faceMaterial: perFace(old.faceMaterial),
    faceSmoothing: perFace(old.faceSmoothing),
    ...(old.faceLost && { faceLost: perFace(old.faceLost) }),
    uvSets: old.uvSets.map(perCorner),
    source: { format: 'none' },
  };
  const uvSets = document.uvSets.map(perCorner);
  const stale = perFace(document.stale);
  for (const f of turnedFaces(document, edit)) stale[f] = 1;
  return {
    ...document,
    model: whole,
    seams: carriedSeams(document, edit, uvSets[document.currentUv].uv),
    uvSets,
    hidden: perFace(document.hidden),
    stale,
    relaxed: perFace(document.relaxed),
  };
}

/** The document with something changed that the file said beside the mesh. */
export function withModelFields(document: HemDocument, fields: Partial<Omit<Model, 'mesh'>>): HemDocument {
  return { ...document, model: { ...document.model, ...fields } };
}

function carriedSeams(document: HemDocument, { mesh, cornerSource }: MeshEdit, uv: Float64Array): Uint8Array {
  const { links: old } = topologyOf(document.model);
  const links = connectivity(mesh);
  const seams = seamsFromUv(links, uv);
  for (let c = 0; c < cornerSource.length; c++) {
    const [from, to] = [cornerSource[c], cornerSource[links.nextCorner[c]]];
    // A face that was turned over runs along its edges the other way.
    const first = old.nextCorner[from] === to ? from : old.nextCorner[to] === from ? to : undefined;
    if (first !== undefined && document.seams[old.cornerEdge[first]]) seams[links.cornerEdge[c]] = 1;
  }
  return seams;
}

function* turnedFaces(document: HemDocument, { mesh, cornerSource }: MeshEdit): Generator<number> {
  const { nextCorner } = topologyOf(document.model).links;
  for (let f = 0; f + 1 < mesh.faceStart.length; f++) {
    const first = mesh.faceStart[f];
    const [a, b] = [cornerSource[first], cornerSource[first + 1]];
    if (nextCorner[b] === a && nextCorner[a] !== b) yield f;
  }
}
