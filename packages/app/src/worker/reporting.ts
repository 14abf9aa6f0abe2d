import * as Comlink from 'comlink';

/**
 * Lends a listener to another thread while that works. Messages of two ports have no order: a report may come after
 * the answer, and is dropped then.
 */
export async function reporting<A extends unknown[], T>(
  listen: (...report: A) => void,
  work: (report: ((...report: A) => void) & Comlink.ProxyMarked) => T,
): Promise<Awaited<T>> {
  let over = false;
  const heard = (...report: A) => {
    if (!over) listen(...report);
  };
  try {
    return await work(Comlink.proxy(heard));
  } finally {
    over = true;
  }
}
