import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { count, ratio, seconds, type Table } from './table.ts';

interface Told {
  readonly triangles: number;
  readonly fused: boolean;
  readonly analyse: number;
  readonly factorise: number;
  readonly peer?: { readonly analyse: number; readonly factorise: number };
}

/** Node 20 has relaxed SIMD behind a flag, which later ones may not know. */
const FUSED = '--experimental-wasm-relaxed-simd';

export function factorisation(large: boolean): Table {
  const script = fileURLToPath(new URL('./factorisation.ts', import.meta.url));
  const sizes = ['20000', '100000', ...(large ? ['500000'] : [])];
  const run = (...flags: string[]): Told[] => {
    const args = [...flags, '--import', 'tsx', script, ...sizes];
    const { status, stdout } = spawnSync(process.execPath, args, { encoding: 'utf8' });
    return status === 0 ? JSON.parse(stdout) : [];
  };
  const runs = [...run(), ...run(FUSED)];
  return {
    title: 'Factorisation of a relax step’s equations',
    columns: [
      'triangles',
      'kernel',
      'analyse, s',
      'factorise, s',
      'Eigen SimplicialLLT: analyse, factorise, s',
      'Eigen’s factorise / ours',
    ],
    rows: runs.map(({ triangles, fused, analyse, factorise, peer }) => [
      count(triangles),
      fused ? 'fused multiply-add' : 'plain SIMD',
      seconds(analyse),
      seconds(factorise),
      peer ? `${seconds(peer.analyse)}, ${seconds(peer.factorise)}` : '–',
      peer ? ratio(peer.factorise, factorise) : '–',
    ]),
  };
}
