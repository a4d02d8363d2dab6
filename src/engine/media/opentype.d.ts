declare module 'opentype.js' {
  import type { OutlineFont } from '../../core/text/outlines';
  export type Font = OutlineFont;
  export function parse(bytes: ArrayBuffer): Font;
}
