import { expect, test } from '@jest/globals';
import { toBase64 } from './base64';

test.each([0, 1, 2, 3, 32767, 32768, 100001])('%i bytes come back as they were', (count) => {
  const bytes = Uint8Array.from({ length: count }, (_, k) => (k * 31 + (k >> 8)) % 256);
  expect(Buffer.from(toBase64(bytes), 'base64').equals(bytes)).toBe(true);
});
