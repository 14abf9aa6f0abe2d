import type { ParamsOf } from '@blunt-hem/core/operations/catalogue';
import { plural } from '@blunt-hem/core/plural';
import { nextNumber, sizeInWords, type Tile, tileOf } from '@blunt-hem/core/surface/tiles';
import { IconX } from '@tabler/icons-react';
import { Button, Collapse, Radio, Select } from 'antd';
import { useMemo, useState } from 'react';
import { perform } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { selectShells } from '../../store/select.ts';
import { usualScale } from '../overlays/against.ts';
import { handle } from '../panes/rendererHandle.ts';
import { DensityByPart, inTexels } from './DensityByPart.tsx';
import { NumberField } from './NumberField.tsx';

type Keeping = NonNullable<ParamsOf<'set-tiles'>['keeping']>;
type Texture = Pick<Tile, 'width' | 'height' | 'padding'>;

/** The tiles of the UV set, how full each is, and the textures that lie on them. */
export function TilesPanel() {
  const tiles = useBench((s) => s.tiles);
  const [edited, setEdited] = useState<number>();
  const [keeping, setKeeping] = useState<Keeping>('shapes');
  const only = tiles.length > 1 ? tiles.find(({ number }) => number === edited) : undefined;
  const set = async (next: readonly Tile[]): Promise<void> => {
    const done = await perform('set-tiles', { tiles: next, keeping });
    if (done?.changed) handle.renderer?.board.frame();
  };
  const setTexture = (part: Partial<Texture>) =>
    set(tiles.map((tile) => (!only || tile === only ? { ...tile, ...part } : tile)));
  const add = () => set([...tiles, { ...tiles[0], number: nextNumber(tiles) }]);
  return (
    <Collapse
      ghost
      size="small"
      className="cut-details tiles"
      items={[
        {
          key: 'tiles',
          label: `Tiles: ${tilesInWords(tiles)}`,
          children: (
            <>
              <ul className="patches">
                {tiles.map((tile, i) => (
                  <TileRow
                    key={tile.number}
                    tile={tile}
                    at={i}
                    remove={() => void set(tiles.toSpliced(i, 1))}
                  />
                ))}
              </ul>
              <DensityByPart />
              <Button size="small" block onClick={() => void add()}>
                Add tile {nextNumber(tiles)}
              </Button>
              {tiles.length > 1 && (
                <label className="rail-field" htmlFor="tile-edited">
                  Texture of
                  <Select<number>
                    id="tile-edited"
                    size="small"
                    aria-label="Texture of which tile"
                    value={only?.number ?? 0}
                    options={[
                      { value: 0, label: 'all tiles' },
                      ...tiles.map(({ number }) => ({ value: number, label: String(number) })),
                    ]}
                    onChange={setEdited}
                  />
                </label>
              )}
              <TextureFields
                key={only?.number}
                texture={only ?? tiles[0]}
                mixed={!only && tiles.some(({ height }) => height !== tiles[0].height)}
                set={setTexture}
              />
              <Radio.Group
                className="tile-keeping"
                value={keeping}
                aria-label="What stays when the shape of the texture changes"
                onChange={(event) => setKeeping(event.target.value)}
              >
                <span>Another shape of texture keeps</span>
                <Radio value="shapes">the shapes of shells</Radio>
                <Radio value="places">the UVs of the file</Radio>
              </Radio.Group>
            </>
          ),
        },
      ]}
    />
  );
}

/** “2048 px”, or “3, 4096 × 2048 px and others”. */
function tilesInWords(tiles: readonly Tile[]): string {
  const sizes = [...new Set(tiles.map(sizeInWords))];
  const size = `${sizes[0]} px${sizes.length > 1 ? ' and others' : ''}`;
  return tiles.length > 1 ? `${tiles.length}, ${size}` : size;
}

function TileRow({
  tile,
  at,
  remove,
}: {
  readonly tile: Tile;
  readonly at: number;
  readonly remove: () => void;
}) {
  const covered = useBench((s) => s.layout?.covered[at]);
  const tiles = useBench((s) => s.tiles);
  const shells = useBench((s) => s.shells);
  const there = useMemo(
    () =>
      [...shells.keys()].filter((s) => {
        const { box } = shells[s];
        return box && tileOf(tiles, box)?.number === tile.number;
      }),
    [shells, tiles, tile.number],
  );
  const density = usualScale({ shells: there.map((s) => shells[s]), tiles });
  const isLast = useBench((s) => s.tiles.length < 2);
  return (
    <li className="tile-row">
      <button
        type="button"
        className="part-density"
        title="Select its shells"
        aria-label={`Select the shells of tile ${tile.number}`}
        onClick={() => selectShells(there)}
      >
        <strong>{tile.number}</strong>
      </button>
      <span>{sizeInWords(tile)} px</span>
      <span className="tile-use">
        {covered === undefined ? '…' : `${(100 * covered).toFixed(0)} % used`}
        <br />
        {plural(there.length, 'shell')}
        {density !== undefined && `, ${inTexels(density)}`}
      </span>
      {!isLast && (
        <Button
          size="small"
          type="text"
          icon={<IconX size={14} />}
          aria-label={`Remove tile ${tile.number}`}
          onClick={remove}
        />
      )}
    </li>
  );
}

/** Its size, and the padding on it. */
function TextureFields({
  texture: { width, height, padding },
  mixed,
  set,
}: {
  readonly texture: Texture;
  /** Whether tiles of several sizes are meant, which are then all made alike. */
  readonly mixed: boolean;
  readonly set: (part: Partial<Texture>) => void;
}) {
  const size = { min: 16, max: 65_536, step: 1024, suffix: 'px' };
  return (
    <>
      <NumberField
        key={`width ${width}`}
        id="tile-width"
        label={mixed ? 'Width, of the first' : 'Width'}
        value={width}
        {...size}
        set={(next) => set({ width: next, height: mixed ? next * (height / width) : height })}
      />
      <NumberField
        key={`height ${height}`}
        id="tile-height"
        label={mixed ? 'Height, of the first' : 'Height'}
        value={height}
        {...size}
        set={(next) => set({ width: mixed ? next * (width / height) : width, height: next })}
      />
      <NumberField
        key={`padding ${padding}`}
        id="tile-padding"
        label="Padding, at least"
        value={padding}
        min={0}
        max={512}
        step={1}
        suffix="px"
        set={(next) => set({ padding: next })}
      />
    </>
  );
}
