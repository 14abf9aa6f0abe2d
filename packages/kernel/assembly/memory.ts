// Lists of 32-bit words in plain memory, handed out one after the other and given back in one go.
// Nothing is checked here: whoever asks for a list knows its length.

const PAGE: usize = 65536;
let top: usize = 0;

@external("env", "stopped")
export declare function stopped(): i32;

@inline export function at(list: usize, i: i32): i32 {
  return load<i32>(list + (<usize>i << 2));
}

@inline export function put(list: usize, i: i32, value: i32): void {
  store<i32>(list + (<usize>i << 2), value);
}

@inline export function bytes(words: i32): usize {
  return <usize>words << 2;
}

/** A list of `words` words, holding anything. Traps when memory is full. */
export function reserve(words: i32): usize {
  const list = top;
  top += (bytes(words) + 15) & ~15;
  const missing = <isize>top - <isize>(<usize>memory.size() * PAGE);
  if (missing > 0 && memory.grow(<i32>((<usize>missing + PAGE - 1) / PAGE)) < 0) unreachable();
  return list;
}

/** The same, all bytes set to `byte`: 0 for zeros, 0xff for −1. */
export function reserveFilled(words: i32, byte: u8): usize {
  const list = reserve(words);
  memory.fill(list, byte, bytes(words));
  return list;
}

/** Everything reserved from here on goes when `release` gets what this returns. */
export function held(): usize {
  return top;
}

export function release(mark: usize): void {
  top = mark;
}
