declare module 'isosurface' {
  type Triple = [number, number, number];
  export function surfaceNets(
    dims: number[],
    potential: (x: number, y: number, z: number) => number,
    bounds: [readonly number[], readonly number[]],
  ): { readonly positions: Triple[]; readonly cells: number[][] };
}
