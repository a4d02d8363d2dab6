import { describe, expect, test } from '@jest/globals';
import { exrOf } from '../../../test/files';
import { exrHead } from './exr-header';

const whole = new Uint8Array(exrOf([[1, 1, 1], [0, 0, 0]])); // prettier-ignore
const headerEnd = 8 + whole.subarray(8).findIndex((byte, k, all) => byte === 0 && all[k - 1] === 63);

describe('the header of an OpenEXR file', () => {
  test('says how large the picture is', () => {
    expect(exrHead(whole)).toEqual({ width: 1, height: 2, fps: null });
  });

  test('that is cut off anywhere is no header', () => {
    for (let end = 8; end < headerEnd; end++) expect(exrHead(whole.subarray(0, end))).toBeNull();
  });

  test.each([
    ['a length below 0', 0xff],
    ['a length beyond the file', 0x7f],
  ])('with %s is no header', (_what, high) => {
    const broken = whole.slice();
    // The highest byte of the first attribute's length: after "channels" and "chlist".
    broken[8 + 9 + 7 + 3] = high;
    expect(exrHead(broken)).toBeNull();
  });

  test('without a data window has no size', () => {
    expect(exrHead(Uint8Array.from([0x76, 0x2f, 0x31, 1, 2, 0, 0, 0, 0]))).toBeNull();
  });
});
