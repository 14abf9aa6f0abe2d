import type { Session } from '@blunt-hem/core/session/session';
import { nextNumber, type Tile } from '@blunt-hem/core/surface/tiles';
import type { TextureSize } from './options.ts';

export interface TextureOptions {
  readonly size?: TextureSize;
  readonly padding?: number;
  /** How many tiles there are. */
  readonly tiles?: number;
}

/** Tiles, their size and padding as they are asked for; as they were otherwise. */
export async function setTexture(
  session: Session,
  { size, padding, tiles: count }: TextureOptions,
): Promise<void> {
  const asked = { ...size, ...(padding !== undefined && { padding }) };
  const tiles: Tile[] = session.document.tiles.slice(0, count).map((tile) => ({ ...tile, ...asked }));
  while (tiles.length < (count ?? 1)) tiles.push({ ...tiles[0], number: nextNumber(tiles) });
  await session.perform('set-tiles', { tiles });
}
