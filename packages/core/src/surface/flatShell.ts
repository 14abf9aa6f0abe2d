/** Triangles of one flat shell: UV of three corners each, `6 × triangleCount`. */
export type FlatShell = Float64Array;
