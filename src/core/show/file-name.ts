/** What a file of a show is called by: the first 96 bits of the SHA-256 digest of its bytes. The same bytes, the same name. */
export const nameOfDigest = (digest: Uint8Array): string =>
  [...digest.subarray(0, 12)].map((byte) => byte.toString(16).padStart(2, '0')).join('');

/** The id of a file in a show: an id begins with a letter. */
export const fileNameOfDigest = (digest: Uint8Array): string => `f${nameOfDigest(digest)}`;
