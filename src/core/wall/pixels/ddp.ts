/** Packets of the Distributed Display Protocol (3waylabs, 2017): a header of ten bytes and up to 1440 of data. */

export const ddpPort = 4048;
/** 480 RGB or 360 RGBW pixels: a whole number of both. */
export const mostDdpBytes = 1440;

const version1 = 0x40;
const push = 0x01;
const displayId = 1;

/** Data types: RGB or RGBW, eight bits an element. */
export const ddpTypes = { rgb: 0x0b, rgbw: 0x1b } as const;

/** One packet. `offset`: byte of the display at which the data begins. `sequence`: 1..15. `isLast`: the display shows what it has. */
export function ddpData(
  { offset, sequence, type, isLast }: { offset: number; sequence: number; type: number; isLast: boolean },
  data: Uint8Array,
): Uint8Array {
  const bytes = new Uint8Array(10 + data.length);
  const view = new DataView(bytes.buffer);
  bytes[0] = version1 | (isLast ? push : 0);
  bytes[1] = sequence;
  bytes[2] = type;
  bytes[3] = displayId;
  view.setUint32(4, offset);
  view.setUint16(8, data.length);
  bytes.set(data, 10);
  return bytes;
}
