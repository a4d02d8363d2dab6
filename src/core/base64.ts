/** Pages, workers and servers all have it. */
declare const btoa: (text: string) => string;

/** Letters that go into a string at a time: a call takes only so many arguments. */
const lettersAtOnce = 32768;

/** Bytes as base64, which messages and files of text can carry. */
export function toBase64(bytes: Uint8Array): string {
  let text = '';
  for (let k = 0; k < bytes.length; k += lettersAtOnce)
    text += String.fromCharCode(...bytes.subarray(k, k + lettersAtOnce));
  return btoa(text);
}
