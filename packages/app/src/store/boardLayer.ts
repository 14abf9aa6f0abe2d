import { tileOf } from '@blunt-hem/core/surface/tiles';
import type { UvBox } from '@blunt-hem/core/surface/uvBox';
import type { MirrorSlice } from './mirror.ts';
import type { SelectionSlice } from './selection.ts';

/** What of the shells the Board can show. */
export const BOARD_LAYERS = {
  all: 'All shells',
  chosen: 'Only the selected',
  tile: 'Only their tile',
  part: 'Only their part',
} as const;
export type BoardLayerName = keyof typeof BOARD_LAYERS;

/** What of the shells is seen on the Board and can be touched there, as it was when it was chosen. */
export interface BoardLayer {
  readonly name: Exclude<BoardLayerName, 'all'>;
  /** 1 for each face that is shown. */
  readonly faces: Uint8Array;
}

type Known = Pick<MirrorSlice, 'model' | 'flat' | 'shells' | 'tiles'> & Pick<SelectionSlice, 'chosen'>;

/** The layer of the Board that goes by the selected shells; undefined where none is selected. */
export function boardLayerOf(state: Known, name: BoardLayer['name']): BoardLayer | undefined {
  const { flat, chosen } = state;
  if (!flat || chosen.size === 0) return undefined;
  const isShown = SHOWN[name](state);
  return { name, faces: Uint8Array.from(flat.faceShell, (s, f) => (isShown(s, f) ? 1 : 0)) };
}

type IsShown = (shell: number, face: number) => boolean;

const SHOWN: Readonly<Record<BoardLayer['name'], (state: Known) => IsShown>> = {
  chosen:
    ({ chosen }) =>
    (shell) =>
      chosen.has(shell),
  tile({ shells, chosen, tiles }) {
    const homeOf = (box: UvBox | undefined) => box && tileOf(tiles, box);
    const homes = new Set([...chosen].map((s) => homeOf(shells[s]?.box)));
    return (shell) => homes.has(homeOf(shells[shell]?.box));
  },
  part({ model, flat, chosen }) {
    const facePart = model?.parts[0]?.facePart;
    const own = new Set<number>();
    flat?.faceShell.forEach((s, f) => {
      if (chosen.has(s)) own.add(facePart?.[f] ?? 0);
    });
    return (_, face) => own.has(facePart?.[face] ?? 0);
  },
};

/** Names of the shells that can be touched on the Board; undefined when all can. */
export const touchableShells = ({
  boardLayer,
  shells,
}: Pick<MirrorSlice, 'shells'> & { readonly boardLayer: BoardLayer | undefined }): number[] | undefined =>
  boardLayer && shells.flatMap(({ name }) => (boardLayer.faces[name] ? [name] : []));
