/** Points evenly over the unit sphere, xyz each, on a spiral about y (González 2010). */
export const fibonacciSphere = (count: number): readonly (readonly [number, number, number])[] =>
  Array.from({ length: count }, (_, i) => {
    const y = 1 - (2 * i + 1) / count;
    const round = i * Math.PI * (3 - Math.sqrt(5));
    const r = Math.sqrt(1 - y * y);
    return [r * Math.cos(round), y, r * Math.sin(round)] as const;
  });
