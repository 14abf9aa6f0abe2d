import type { Material } from '../mesh/material.ts';
import { faceCount } from '../mesh/mesh.ts';
import type { Model } from '../mesh/model.ts';
import { FIRST_TILE, type Tile } from '../surface/tiles.ts';
import type { Change, Delta } from './delta.ts';
import { type DocumentSet, freshState, type HemDocument } from './document.ts';
import {
  blankMarks,
  MARK_FIELDS,
  type MarkArray,
  type Marks,
  type SetState,
  setStateOf,
  VALUES,
} from './fields.ts';
import type { Limits } from './limits.ts';

/**
 * Documents and acts as any version so far kept them, made those of today.
 *
 * 1. Parts were hidden, not faces: all come back shown.
 * 2. A change of UVs was kept corner by corner; a change of the mesh was kept whole, as `remesh`; a model that no export could
 *    repeat had lost its source.
 * 4. Whether shells keep their places was not told: where there are any, they do. Every model stood along y.
 * 5. There were no patches.
 * 6. How shells were unfolded was not kept, nor were smoothed faces, pins and stays.
 * 7. There were no grain lines.
 * 10. Texture and padding were limits, one of each for all UV sets, of square textures.
 * 9. Sets were told by their place, and only the first had marks. There were 255 patches at most, a byte a face.
 * 13. Every grain line ran up on the model; their marks are the same today.
 * 12. No shells were kept together.
 * 11. Materials were names, and their colours one list beside them.
 * 8. No shell was locked, there were no limits, and every model looked along +z, or −y where z points up.
 */
export function upgradedDocument(kept: HemDocument): HemDocument {
  return withMaterials(
    withGroups(withTiles(withWideMarks(withSets(withAllFields(withPlaced(withHidden(kept))))))),
  );
}

/** The same of what may be no document at all, and then stays what it is. */
export function upgradedIfDocument(candidate: unknown): unknown {
  try {
    return upgradedDocument(candidate as HemDocument);
  } catch {
    return candidate;
  }
}

function withHidden(kept: HemDocument): HemDocument {
  if ('hidden' in kept) return kept;
  const { hiddenParts: _, ...rest } = kept as HemDocument & { hiddenParts: unknown };
  return { ...rest, hidden: new Uint8Array(faceCount(rest.model.mesh)) };
}

function withPlaced(kept: HemDocument): HemDocument {
  if ('placed' in kept) return kept;
  const { uvSets, currentUv } = kept as HemDocument;
  const isLaid = !uvSets[currentUv].uv.every(Number.isNaN);
  return { ...(kept as HemDocument), upAxis: 0, placed: isLaid ? 1 : 0 };
}

/** Fields that came later are blank. */
function withAllFields(kept: HemDocument): HemDocument {
  if (MARK_FIELDS.every((field) => field in kept)) return kept;
  return { ...VALUES, ...blankBeside(kept), ...kept };
}

/** Sets are told by their place, which is their id from then on; those that were never current have seams where they break. */
function withSets(kept: HemDocument): HemDocument {
  const { uvSets, currentUv, model } = kept;
  if (uvSets.every((set) => 'id' in set)) return kept;
  return {
    ...kept,
    setsMade: uvSets.length,
    uvSets: uvSets.map(({ name, uv }, id) =>
      id === currentUv ? { id, name, uv } : { id, name, uv, away: freshState(model, uv) },
    ),
  };
}

/** Patches were a byte a face. */
const withWideMarks = <T extends { readonly patches: MarkArray }>(kept: T): T =>
  kept.patches instanceof Uint8Array ? { ...kept, patches: Uint16Array.from(kept.patches) } : kept;

/** Materials were names, with three numbers each for their colours in one list, NaN for none. */
type OldMaterials = Omit<Partial<Model>, 'materials'> & {
  readonly materials?: readonly string[];
  readonly materialColours?: Float64Array;
};

function withMaterials(kept: HemDocument): HemDocument {
  if ('images' in kept.model) return kept;
  return { ...kept, model: { ...modelWithMaterials(kept.model), images: [] } as Model };
}

/** The same fields of a model, with materials as objects where there are any. */
function modelWithMaterials(fields: object): Partial<Model> {
  const { materials, materialColours, ...rest } = fields as OldMaterials;
  if (!materials?.every((item) => typeof item === 'string')) return fields;
  const described = materials.map((name, i): Material => {
    const [red, green, blue] = materialColours?.subarray(3 * i, 3 * i + 3) ?? [NaN];
    return Number.isNaN(red) ? { name } : { name, colour: [red, green, blue] };
  });
  return { ...rest, materials: described };
}

/** Limits as they were kept when they told of the texture too. */
type OldLimits = Limits & { readonly texture?: number; readonly padding?: number };

/** What limits told of the texture is a tile, of every UV set. */
function withTiles(kept: HemDocument): HemDocument {
  const isOld = 'texture' in kept.limits;
  if (!isOld && 'tiles' in kept && kept.uvSets.every(({ away }) => !away || 'tiles' in away)) return kept;
  const tiles = tilesOf(kept.limits);
  return {
    ...kept,
    limits: withoutTexture(kept.limits),
    tiles: isOld ? tiles : (kept.tiles ?? tiles),
    uvSets: kept.uvSets.map((set) => setWithTiles(set, tiles)),
  };
}

const setWithTiles = (set: DocumentSet, tiles: readonly Tile[]): DocumentSet =>
  set.away && !('tiles' in set.away) ? { ...set, away: { ...(set.away as SetState), tiles } } : set;

/** A set that is put away has marks of its own for shells that are kept together. */
const setWithGroups = (set: DocumentSet): DocumentSet =>
  set.away && !('groups' in set.away)
    ? {
        ...set,
        away: { ...(set.away as SetState), groups: new Uint16Array((set.away as SetState).stale.length) },
      }
    : set;

function withGroups(kept: HemDocument): HemDocument {
  const uvSets = kept.uvSets.map(setWithGroups);
  return uvSets.some((set, i) => set !== kept.uvSets[i]) ? { ...kept, uvSets } : kept;
}

const tilesOf = ({ texture = FIRST_TILE.height, padding = FIRST_TILE.padding }: OldLimits): Tile[] => [
  { ...FIRST_TILE, width: texture, height: texture, padding },
];

function withoutTexture(limits: OldLimits): Limits {
  const { texture: _, padding: __, ...rest } = limits;
  return rest;
}

/** No marks, for what as many others were kept of. */
const blankBeside = ({ seams, stale, uvSets }: Pick<HemDocument, 'seams' | 'stale' | 'uvSets'>): Marks =>
  blankMarks({ edge: seams.length, face: stale.length, corner: uvSets[0].uv.length / 2 });

const NOWHERE = { at: new Uint32Array(0), before: new Float64Array(0), after: new Float64Array(0) };

type OldChange = {
  readonly kind: string;
  readonly field?: string;
  readonly set?: number;
  readonly corners?: unknown;
  readonly before?: unknown;
  readonly after?: unknown;
};

/** What an act changed, as it is now, from as any version kept it. */
export function upgradedDelta(kept: Delta): Delta {
  return { ...kept, changes: (kept.changes as readonly OldChange[]).flatMap(upgradedChange) };
}

function upgradedChange(change: OldChange): Change[] {
  if (change.kind === 'marks' && change.field === 'hiddenParts') return [];
  if (change.kind === 'marks' && change.field === 'patches')
    return [{ ...change, before: widened(change.before), after: widened(change.after) } as Change];
  if (change.kind === 'uv' && change.corners instanceof Uint32Array) {
    const { set, corners, before, after } = change;
    return [{ kind: 'uv', set, vertices: NOWHERE, corners: { at: corners, before, after } } as Change];
  }
  if (change.kind === 'value' && change.field === 'limits' && 'texture' in (change.before as object)) {
    // Of the texture what was set last stays: acts would change that of one set, where it was of all.
    const [before, after] = [change.before as OldLimits, change.after as OldLimits];
    return [{ kind: 'value', field: 'limits', before: withoutTexture(before), after: withoutTexture(after) }];
  }
  if (change.kind === 'set-added' || change.kind === 'set-removed') {
    const { set } = change as unknown as { readonly set: DocumentSet };
    return [{ ...change, set: setWithGroups(setWithTiles(set, VALUES.tiles)) } as unknown as Change];
  }
  const isWhole = (): boolean => typeof change.before === 'object' && 'seams' in (change.before ?? {});
  if (change.kind === 'replacement' || (change.kind === 'remesh' && isWhole()))
    return [
      {
        kind: 'replacement',
        before: upgradedWhole(change.before),
        after: upgradedWhole(change.after),
      } as Change,
    ];
  if (change.kind === 'model') return [withNamedMaterials(change)];
  const { marks } = change as { readonly marks?: { readonly patches?: object } };
  if (change.kind === 'remesh' && marks?.patches)
    return [
      withNamedMaterials({
        ...change,
        marks: { ...marks, patches: widenedDelta(marks.patches) },
      } as OldChange),
    ];
  return [change as Change];
}

/** A change of fields of the model, with materials as objects before and after. */
const withNamedMaterials = (change: OldChange): Change =>
  ({
    ...change,
    before: modelWithMaterials(change.before as object),
    after: modelWithMaterials(change.after as object),
  }) as unknown as Change;

const widened = (list: unknown): unknown => (list instanceof Uint8Array ? Uint16Array.from(list) : list);

/** The lists of a delta that hold marks; which places they are at is kept otherwise. */
const widenedDelta = (delta: object): object =>
  Object.fromEntries(Object.entries(delta).map(([key, list]) => [key, widened(list)]));

/** All that hangs on a mesh, as a change of it was kept. */
function upgradedWhole(kept: unknown): unknown {
  const { hiddenParts: _, ...whole } = kept as { hiddenParts?: unknown } & HemDocument;
  const rest = { ...whole, model: modelWithMaterials(whole.model) as Model };
  const blank = blankBeside(rest);
  const uvSets = rest.uvSets.map(({ name, uv }, id) =>
    id === 0 ? { id, name, uv } : { id, name, uv, away: setStateOf({ ...VALUES, ...blank, placed: 1 }) },
  );
  return withWideMarks({ ...blank, ...rest, uvSets });
}
