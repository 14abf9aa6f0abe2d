import { BAKE_MAPS, type BakeMapName } from '@blunt-hem/core/bake/maps';
import { IconPlayerStop, IconTexture } from '@tabler/icons-react';
import { Button, InputNumber, Progress, Select } from 'antd';
import { saveAs } from 'file-saver';
import { useEffect, useState } from 'react';
import { parameterOf } from '../bench/parameterOf.ts';
import { fail } from '../store/acts.ts';
import { bench, unwrap } from '../store/worker.ts';
import { reporting } from '../worker/reporting.ts';

const ofSize = parameterOf('bake', 'size');
const ofRays = parameterOf('bake', 'rays');
/** Rays and pixels that are usual here: seconds, not minutes. */
const [USUAL_RAYS, USUAL_SIZE] = [32, 1024];

/** Maps made from the model, to paint by. @param tile  of which tile, its number */
export function BakeSection({ tile }: { readonly tile: number }) {
  const [map, setMap] = useState<BakeMapName>('ambient-occlusion');
  const [size, setSize] = useState(USUAL_SIZE);
  const [rays, setRays] = useState(USUAL_RAYS);
  /** How far it is, 0 to 1, while one is made. */
  const [done, setDone] = useState<number>();
  const [made, setMade] = useState<{
    readonly url: string;
    readonly fileName: string;
    readonly blob: Blob;
  }>();
  const chosen = BAKE_MAPS.find(({ name }) => name === map) as (typeof BAKE_MAPS)[number];
  const castsRays = 'reach' in chosen;
  useEffect(() => () => (made ? URL.revokeObjectURL(made.url) : undefined), [made]);
  // What runs when the page is left would be of use to nobody.
  useEffect(() => () => void bench.stopAsking('bake'), []);

  const bake = async (): Promise<void> => {
    setDone(0);
    setMade(undefined);
    try {
      const file = unwrap(
        await reporting(setDone, (report) => bench.ask('bake', { map, size, rays, tile }, report)),
      );
      if (!file) return;
      const blob = new Blob([file.bytes as Uint8Array<ArrayBuffer>], { type: 'image/png' });
      setMade({ url: URL.createObjectURL(blob), fileName: file.fileName, blob });
    } catch (error) {
      fail(error);
    } finally {
      setDone(undefined);
    }
  };
  return (
    <>
      <h2>Maps to paint by</h2>
      <div className="deliver-options">
        <Select<BakeMapName>
          size="small"
          aria-label="Which map"
          value={map}
          options={BAKE_MAPS.map(({ name, label }) => ({ value: name, label }))}
          onChange={setMap}
        />
        <label htmlFor="bake-size">
          Height, px
          <InputNumber
            id="bake-size"
            size="small"
            {...ofSize.range}
            step={1024}
            precision={0}
            value={size}
            onChange={(next) => setSize(next ?? USUAL_SIZE)}
          />
        </label>
        {castsRays && (
          <label htmlFor="bake-rays">
            Rays a pixel
            <InputNumber
              id="bake-rays"
              size="small"
              {...ofRays.range}
              precision={0}
              value={rays}
              onChange={(next) => setRays(next ?? USUAL_RAYS)}
            />
          </label>
        )}
      </div>
      <p>{`It shows ${chosen.summary}.`}</p>
      <div className="deliver-row">
        {done === undefined ? (
          <Button icon={<IconTexture size={16} />} onClick={() => void bake()}>
            Make the map
          </Button>
        ) : (
          <>
            <Progress
              className="deliver-progress"
              percent={Math.round(100 * done)}
              aria-label={`${chosen.label} is being made`}
            />
            <Button icon={<IconPlayerStop size={16} />} onClick={() => void bench.stopAsking('bake')}>
              Stop the map
            </Button>
          </>
        )}
        {made && <Button onClick={() => saveAs(made.blob, made.fileName)}>Save {made.fileName}</Button>}
      </div>
      {made && <img className="deliver-map" src={made.url} alt={`${chosen.label} of tile ${tile}`} />}
    </>
  );
}
