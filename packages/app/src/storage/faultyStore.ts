import 'fake-indexeddb/auto';

/** What goes wrong at one write of many. */
export type Fault = 'refused' | 'aborted' | 'slow' | 'killed';

/** The page is gone: nothing it asks for happens any more. */
class DeadError extends Error {}

const WRITES = ['put', 'add', 'delete'] as const;
/** Requests that go before a slow write. */
const WAIT = 40;

let count = 0;
let plan: { readonly at: number; readonly fault: Fault } | undefined;
let dead = false;

for (const name of WRITES) {
  const original = IDBObjectStore.prototype[name] as (...args: unknown[]) => IDBRequest;
  IDBObjectStore.prototype[name] = function (this: IDBObjectStore, ...args: unknown[]) {
    if (dead) throw new DeadError();
    if (++count !== plan?.at) return original.apply(this, args);
    switch (plan.fault) {
      case 'refused':
        throw new DOMException('no room', 'QuotaExceededError');
      case 'aborted': {
        // Written, and then the whole of it is taken back: so browsers refuse at the end of a transaction.
        const request = original.apply(this, args);
        this.transaction.abort();
        return request;
      }
      case 'slow':
        for (let i = 0; i < WAIT; i++) this.count();
        return original.apply(this, args);
      case 'killed':
        dead = true;
        this.transaction.abort();
        throw new DeadError();
    }
  } as never;
}

/** Lets something go wrong at the write of that number from here on, or nothing. */
export function spoilWrite(next: typeof plan): void {
  count = 0;
  plan = next;
  dead = false;
}

export const writes = (): number => count;
export const isDead = (): boolean => dead;
