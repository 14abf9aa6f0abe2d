/**
 * Work for the newest of what it is given, one at a time: what came meanwhile and is not the newest is passed over.
 *
 * @param work  told whether something newer has come since it began
 */
export function newestOnly<T>(
  work: (item: T, isNewest: () => boolean) => Promise<void>,
): (item: T) => Promise<void> {
  let busy = false;
  let next: { readonly item: T } | undefined;
  return async (item) => {
    next = { item };
    if (busy) return;
    busy = true;
    try {
      while (next) {
        const now: { readonly item: T } = next;
        next = undefined;
        await work(now.item, () => next === undefined);
      }
    } finally {
      busy = false;
    }
  };
}
