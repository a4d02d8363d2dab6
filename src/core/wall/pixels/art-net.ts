/**
 * Packets of Art-Net 4 (Artistic Licence, "Art-Net 4 Protocol Release V1.4", document revision 1.4dp): ArtDmx and ArtSync.
 */

export const artNetPort = 6454;
/** Port-Address: net (7 bits), sub-net (4 bits) and universe (4 bits). */
export const mostArtNetUniverse = 32767;

const opDmx = 0x5000;
const opSync = 0x5200;
const protocolVersion = 14;

function head(bytes: Uint8Array, opCode: number): DataView {
  bytes.set([...'Art-Net'].map((c) => c.charCodeAt(0)));
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

/** An ArtSync packet: nodes show what they were sent. */
export function artSync(): Uint8Array {
  const bytes = new Uint8Array(14);
  head(bytes, opSync);
  return bytes;
}
