/** Works something out when it is first wanted, and keeps it: for what is the same for everybody, as compiled code is. */
export function once<T>(work: () => T): () => T {
  let known: { readonly value: T } | undefined;
  return () => {
    known ??= { value: work() };
    return known.value;
  };
}
