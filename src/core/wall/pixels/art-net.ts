/**
 * Packets of Art-Net 4 (Artistic Licence, "Art-Net 4 Protocol Release V1.4", document revision 1.4dp): ArtDmx, ArtSync, ArtPoll and ArtPollReply.
 */

export const artNetPort = 6454;
/** Port-Address: net (7 bits), sub-net (4 bits) and universe (4 bits). */
export const mostArtNetUniverse = 32767;

const opDmx = 0x5000;
const opSync = 0x5200;
const opPoll = 0x2000;
const opPollReply = 0x2100;
const protocolVersion = 14;

const idBytes = Uint8Array.from('Art-Net', (c) => c.charCodeAt(0));

function head(bytes: Uint8Array, opCode: number): DataView {
  bytes.set(idBytes);
  const view = new DataView(bytes.buffer);
  view.setUint16(8, opCode, true);
  view.setUint16(10, protocolVersion);
  return view;
}

/** An ArtDmx packet. `universe`: the 15-bit Port-Address. `sequence`: 1..255, 0 switches reordering off. Data is padded to an even length. */
export function artDmx(universe: number, sequence: number, data: Uint8Array): Uint8Array {
  const length = data.length + (data.length % 2);
  const bytes = new Uint8Array(18 + length);
  const view = head(bytes, opDmx);
  bytes[12] = sequence;
  bytes[14] = universe & 0xff;
  bytes[15] = universe >> 8;
  view.setUint16(16, length);
  bytes.set(data, 18);
  return bytes;
}

/** An ArtPoll packet: every node that hears it answers with ArtPollReply. */
export function artPoll(): Uint8Array {
  const bytes = new Uint8Array(14);
  head(bytes, opPoll);
  return bytes;
}

/** A node as it tells of itself. */
export interface ArtNetNode {
  address: string;
  /** Up to 17 and 63 letters. */
  name: string;
  about: string;
  /** Port-Addresses that it puts out. */
  universes: number[];
}

const letters = (bytes: Uint8Array): string => {
  const end = bytes.indexOf(0);
  return String.fromCharCode(...bytes.subarray(0, end < 0 ? bytes.length : end)).trim();
};

/** Reads an ArtPollReply; null: it is none. */
export function readArtPollReply(bytes: Uint8Array): ArtNetNode | null {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < 207 || letters(bytes.subarray(0, 8)) !== 'Art-Net') return null;
  if (view.getUint16(8, true) !== opPollReply) return null;
  const port = (k: number): number =>
    ((bytes[18] & 0x7f) << 8) | ((bytes[19] & 0x0f) << 4) | (bytes[190 + k] & 0x0f);
  const ports = Math.min(4, view.getUint16(172));
  return {
    address: bytes.subarray(10, 14).join('.'),
    name: letters(bytes.subarray(26, 44)),
    about: letters(bytes.subarray(44, 108)),
    // Bit 7 of a port's type: it puts out what comes from the network.
    universes: Array.from({ length: ports }, (_, k) => k)
      .filter((k) => bytes[174 + k] & 0x80)
      .map(port),
  };
}

/** An ArtSync packet: nodes show what they were sent. */
export function artSync(): Uint8Array {
  const bytes = new Uint8Array(14);
  head(bytes, opSync);
  return bytes;
}
