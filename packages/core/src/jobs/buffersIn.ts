/** All buffers in plain data, each once: for handing over rather than copying. */
export function buffersIn(value: unknown, found = new Set<ArrayBuffer>()): ArrayBuffer[] {
  if (ArrayBuffer.isView(value)) {
    // A view of a part: handing it over would take the rest along. An empty one costs nothing, and is often shared.
    if (
      value.byteLength > 0 &&
      value.byteLength === value.buffer.byteLength &&
      value.buffer instanceof ArrayBuffer
    )
      found.add(value.buffer);
  } else if (value instanceof ArrayBuffer) found.add(value);
  else if (Array.isArray(value)) for (const item of value) buffersIn(item, found);
  else if (typeof value === 'object' && value !== null && Object.getPrototypeOf(value) === Object.prototype)
    for (const item of Object.values(value)) buffersIn(item, found);
  return [...found];
}
