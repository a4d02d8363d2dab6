export type FileForm =
  | 'png'
  | 'jpeg'
  | 'webp'
  | 'avif'
  | 'gif'
  | 'svg'
  | 'exr'
  | 'hdr'
  | 'mp4'
  | 'webm'
  | 'cube'
  | 'glb'
  | 'gltf'
  | 'ply'
  | 'obj'
  | 'stl'
  | 'zip'
  | 'unknown';

/** A binary STL begins with 80 bytes that say nothing, and then how many triangles of 50 bytes follow. */
function isBinaryStl(bytes: Uint8Array): boolean {
  if (bytes.length < 84) return false;
  const count = bytes[80] + bytes[81] * 256 + bytes[82] * 65536 + bytes[83] * 16777216;
  return bytes.length === 84 + 50 * count;
}

/** What a file is by its first bytes: names and types that come with files are often wrong. */
export function sniff(bytes: Uint8Array): FileForm {
  const text = (from: number, to: number): string =>
    String.fromCharCode(...bytes.subarray(from, Math.min(to, bytes.length)));
  const head = text(0, 512);
  if (head.startsWith('\x89PNG')) return 'png';
  if (bytes[0] === 0xff && bytes[1] === 0xd8) return 'jpeg';
  if (head.startsWith('RIFF') && text(8, 12) === 'WEBP') return 'webp';
  if (head.startsWith('GIF8')) return 'gif';
  if (head.startsWith('glTF')) return 'glb';
  if (/^ply\r?\n/.test(head)) return 'ply';
  if (bytes[0] === 0x76 && bytes[1] === 0x2f && bytes[2] === 0x31 && bytes[3] === 0x01) return 'exr';
  if (head.startsWith('#?')) return 'hdr';
  if (head.startsWith('PK\x03\x04')) return 'zip';
  if (bytes[0] === 0x1a && bytes[1] === 0x45 && bytes[2] === 0xdf && bytes[3] === 0xa3) return 'webm';
  if (text(4, 8) === 'ftyp') return /avif|avis/.test(text(8, 32)) ? 'avif' : 'mp4';
  if (/<svg[\s>]/i.test(text(0, 4096))) return 'svg';
  if (/^\s*(#|TITLE|LUT_|DOMAIN_)/.test(head) && /LUT_[13]D_SIZE/.test(text(0, 4096))) return 'cube';
  if (isBinaryStl(bytes) || /^\s*solid\b/.test(head)) return 'stl';
  const more = text(0, 65536);
  if (/^\s*\{/.test(head) && /"asset"\s*:/.test(more)) return 'gltf';
  if (/^v\s+[-\d.]/m.test(more)) return 'obj';
  return 'unknown';
}

export const pictureForms: ReadonlySet<FileForm> = new Set([
  'png',
  'jpeg',
  'webp',
  'avif',
  'gif',
  'svg',
  'exr',
  'hdr',
]);
