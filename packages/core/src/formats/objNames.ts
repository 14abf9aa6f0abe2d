/** Names as one line of an OBJ file can hold them. */
// biome-ignore lint/suspicious/noControlCharactersInRegex: they are what is taken out
export const oneLine = (name: string): string => name.replace(/[\u0000-\u001f\u007f]+/g, ' ').trim();

/** A name for each material that no other has: an OBJ file tells materials apart by nothing else. */
export function objNames(names: readonly string[]): string[] {
  const taken = new Set<string>();
  return names.map((name, i) => {
    const plain = oneLine(name) || `material-${i + 1}`;
    let free = plain;
    for (let k = 2; taken.has(free); k++) free = `${plain}.${k}`;
    taken.add(free);
    return free;
  });
}
