/** Names met while reading, numbered in the order they first appear. */
export interface NameTable {
  readonly names: string[];
  indexOf(name: string): number;
}

export function nameTable(): NameTable {
  const names: string[] = [];
  const numbers = new Map<string, number>();
  return {
    names,
    indexOf(name) {
      let index = numbers.get(name);
      if (index === undefined) {
        index = names.length;
        numbers.set(name, index);
        names.push(name);
      }
      return index;
    },
  };
}
