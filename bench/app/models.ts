/** Models for the benchmarks of the app, as OBJ text: what an artist would drop on the Rack. */

/** One sheet with hills, split into triangles, of about so many. */
export function hillsObj(triangles: number): string {
  const side = Math.round(Math.sqrt(triangles / 2));
  const lines: string[] = ['o Hills'];
  for (let i = 0; i <= side; i++) {
    for (let j = 0; j <= side; j++) {
      const [u, v] = [(20 * i) / side, (20 * j) / side];
      const height = 3 * Math.exp(-((u - 7) ** 2 + (v - 8) ** 2) / 9) + 2 * Math.sin(u / 3) * Math.cos(v / 4);
      lines.push(`v ${v.toFixed(6)} ${height.toFixed(6)} ${u.toFixed(6)}`);
    }
  }
  pushSheet(lines, side, 1);
  return `${lines.join('\n')}\n`;
}

/** So many sheets that share nothing, of `2 × side²` triangles each: as many shells. */
export function patchesObj(many: number, side: number): string {
  const lines: string[] = [];
  const row = Math.ceil(Math.sqrt(many));
  for (let n = 0; n < many; n++) {
    lines.push(`o Patch ${n + 1}`);
    const [x, y] = [(n % row) * 1.2 * side, Math.floor(n / row) * 1.2 * side];
    for (let i = 0; i <= side; i++) {
      for (let j = 0; j <= side; j++)
        lines.push(
          `v ${(x + j + 0.1 * Math.sin(n + i)).toFixed(5)} ${(y + i).toFixed(5)} ${Math.sin(0.3 * (i + j) + n).toFixed(5)}`,
        );
    }
    pushSheet(lines, side, 1 + n * (side + 1) ** 2);
  }
  return `${lines.join('\n')}\n`;
}

function pushSheet(lines: string[], side: number, first: number): void {
  for (let i = 0; i < side; i++) {
    for (let j = 0; j < side; j++) {
      const a = first + i * (side + 1) + j;
      const [b, c, d] = [a + 1, a + side + 2, a + side + 1];
      lines.push(`f ${a} ${d} ${c}`, `f ${a} ${c} ${b}`);
    }
  }
}
