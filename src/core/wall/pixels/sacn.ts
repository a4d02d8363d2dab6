/**
 * Packets of streaming ACN (ANSI E1.31-2018): data and universe synchronization. Written here because the known package is made
 * for Node's buffers and sockets, while these are packed in the engine's worker.
 */

export const sacnPort = 5568;
export const mostSacnUniverse = 63999;

const vectorRootData = 0x00000004;
const vectorRootExtended = 0x00000008;
const vectorDataPacket = 0x00000002;
const vectorSynchronization = 0x00000001;
const vectorSetProperty = 0x02;

/** Who sends: one CID (a UUID of 16 bytes) for a sender's life, and a name for people. */
export interface SacnSource {
  cid: Uint8Array;
  name: string;
}

/** Flags 0x7 and the length of a block of data units from there to the end of the packet. */
const flagsAndLength = (bytes: number): number => 0x7000 | bytes;

const encoder = new TextEncoder();
const idBytes = Uint8Array.from('ASC-E1.17', (c) => c.charCodeAt(0));

function root(length: number, vector: number, { cid }: SacnSource): { bytes: Uint8Array; view: DataView } {
  const bytes = new Uint8Array(length);
  const view = new DataView(bytes.buffer);
  view.setUint16(0, 0x0010);
  bytes.set(idBytes, 4);
  view.setUint16(16, flagsAndLength(length - 16));
  view.setUint32(18, vector);
  bytes.set(cid, 22);
  view.setUint16(38, flagsAndLength(length - 38));
  return { bytes, view };
}

/** A data packet with DMX start code 0. `sync`: universe whose synchronization packet is waited for; 0: none. */
export function sacnData(
  source: SacnSource,
  {
    universe,
    sequence,
    priority,
    sync,
  }: { universe: number; sequence: number; priority: number; sync: number },
  data: Uint8Array,
): Uint8Array {
  const { bytes, view } = root(126 + data.length, vectorRootData, source);
  view.setUint32(40, vectorDataPacket);
  // One byte of the 64 stays zero.
  bytes.set(encoder.encode(source.name).subarray(0, 63), 44);
  bytes[108] = priority;
  view.setUint16(109, sync);
  bytes[111] = sequence;
  view.setUint16(113, universe);
  view.setUint16(115, flagsAndLength(bytes.length - 115));
  bytes[117] = vectorSetProperty;
  bytes[118] = 0xa1;
  view.setUint16(121, 1);
  view.setUint16(123, data.length + 1);
  bytes.set(data, 126);
  return bytes;
}

/** A universe synchronization packet. */
export function sacnSync(source: SacnSource, sync: number, sequence: number): Uint8Array {
  const { bytes, view } = root(49, vectorRootExtended, source);
  view.setUint32(40, vectorSynchronization);
  bytes[44] = sequence;
  view.setUint16(45, sync);
  return bytes;
}

/** The multicast address of a universe. */
export const sacnAddress = (universe: number): string => `239.255.${universe >> 8}.${universe & 0xff}`;
