import { SAMPLE_WIDTH } from '@blunt-hem/core/mesh/sampleFaces';
import { frontOf, type Stance, upOf } from '@blunt-hem/core/mesh/stance';
import { useEffect, useRef } from 'react';

const [SIDE, MARGIN] = [112, 8];

/** The four that are asked about: either axis up, and either end of it to the front. */
export const STANCES: readonly (Stance & { readonly label: string })[] = [
  { upAxis: 0, front: 0, label: 'y up, z to the front' },
  { upAxis: 0, front: 2, label: 'y up, z to the back' },
  { upAxis: 1, front: 0, label: 'z up, y to the back' },
  { upAxis: 1, front: 2, label: 'z up, y to the front' },
];

interface StancesProps {
  /** See `sampleFaces`. */
  readonly sample: Float32Array;
  readonly value: Stance;
  readonly onChange: (stance: Stance) => void;
}

/** Asks how a model stands, by four small pictures of it as whoever stands before it would see it. */
export function Stances({ sample, value, onChange }: StancesProps) {
  return (
    <fieldset className="stances">
      <legend>Which of these stands upright and looks at you?</legend>
      {STANCES.map(({ label, ...stance }) => (
        <label key={label} data-chosen={stance.upAxis === value.upAxis && stance.front === value.front}>
          <input
            type="radio"
            name="stance"
            checked={stance.upAxis === value.upAxis && stance.front === value.front}
            onChange={() => onChange(stance)}
          />
          <Picture sample={sample} stance={stance} />
          {label}
        </label>
      ))}
    </fieldset>
  );
}

function Picture({ sample, stance }: { readonly sample: Float32Array; readonly stance: Stance }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a stance is what it says
  useEffect(() => {
    const pen = canvas.current?.getContext('2d');
    if (pen) draw(pen, sample, stance);
  }, [sample, stance.upAxis, stance.front]);
  return <canvas ref={canvas} width={SIDE} height={SIDE} />;
}

const dot = (a: readonly number[], x: number, y: number, z: number): number => a[0] * x + a[1] * y + a[2] * z;

/** Faces that look at the viewer as squares, the farthest first, lighter the more they do. */
function draw(pen: CanvasRenderingContext2D, sample: Float32Array, stance: Stance): void {
  const [up, front] = [upOf(stance), frontOf(stance)];
  const across = [
    up[1] * front[2] - up[2] * front[1],
    up[2] * front[0] - up[0] * front[2],
    up[0] * front[1] - up[1] * front[0],
  ];
  const faces: {
    readonly x: number;
    readonly y: number;
    readonly depth: number;
    readonly light: number;
    readonly size: number;
  }[] = [];
  const [low, high] = [
    [Infinity, Infinity],
    [-Infinity, -Infinity],
  ];
  for (let i = 0; i < sample.length; i += SAMPLE_WIDTH) {
    const [px, py, pz, nx, ny, nz, size] = sample.subarray(i, i + SAMPLE_WIDTH);
    const [x, y] = [dot(across, px, py, pz), dot(up, px, py, pz)];
    [x, y].forEach((value, k) => {
      low[k] = Math.min(low[k], value);
      high[k] = Math.max(high[k], value);
    });
    const light = dot(front, nx, ny, nz) + 0.35 * dot(up, nx, ny, nz);
    if (dot(front, nx, ny, nz) > 0) faces.push({ x, y, depth: dot(front, px, py, pz), light, size });
  }
  faces.sort((a, b) => a.depth - b.depth);
  const scale = (SIDE - 2 * MARGIN) / Math.max(high[0] - low[0], high[1] - low[1], 1e-12);
  pen.clearRect(0, 0, SIDE, SIDE);
  for (const { x, y, light, size } of faces) {
    const grey = Math.round(70 + 150 * Math.max(0, Math.min(1, light)));
    pen.fillStyle = `rgb(${grey}, ${grey - 4}, ${grey - 14})`;
    const side = Math.max(1.5, 1.3 * scale * size);
    pen.fillRect(
      SIDE / 2 + scale * (x - (low[0] + high[0]) / 2) - side / 2,
      SIDE / 2 - scale * (y - (low[1] + high[1]) / 2) - side / 2,
      side,
      side,
    );
  }
}
