export interface ExrHead {
  /** Of its data window, in pixels. */
  width: number;
  height: number;
  /** Frames a second of the sequence that it is one of; null: it does not say. */
  fps: number | null;
}

/**
 * Walks the header of an OpenEXR file (its first part).
 * Null where the header ends early or does not hold together: a reader that trusts it may never come back.
 * Source: "OpenEXR File Layout" and "Standard Attributes", the Academy Software Foundation.
 */
export function exrHead(bytes: Uint8Array): ExrHead | null {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let at = 8;
  let size: { width: number; height: number } | null = null;
  let fps: number | null = null;
  const name = (): string | null => {
    const end = bytes.indexOf(0, at);
    if (end < 0 || end - at > 255) return null;
    const text = String.fromCharCode(...bytes.subarray(at, end));
    at = end + 1;
    return text;
  };
  for (;;) {
    const attribute = name();
    if (attribute === null) return null;
    if (attribute === '') return size && { ...size, fps };
    const type = name();
    if (!type || at + 4 > bytes.length) return null;
    const length = view.getInt32(at, true);
    at += 4;
    if (length < 0 || at + length > bytes.length) return null;
    if (attribute === 'dataWindow') {
      if (type !== 'box2i' || length !== 16) return null;
      const [left, low, right, high] = [0, 4, 8, 12].map((k) => view.getInt32(at + k, true));
      size = { width: right - left + 1, height: high - low + 1 };
    }
    if (attribute === 'framesPerSecond' && type === 'rational' && length === 8) {
      const rate = view.getInt32(at, true) / view.getUint32(at + 4, true);
      if (rate > 0 && Number.isFinite(rate)) fps = rate;
    }
    at += length;
  }
}
