/** What every place that the pure rooms run in has: browsers, workers and Node alike. Only what is named here. */

declare class TextDecoder {
  constructor(label?: string, options?: { fatal?: boolean });
  decode(input: ArrayBuffer | ArrayBufferView): string;
}

declare class TextEncoder {
  encode(input: string): Uint8Array<ArrayBuffer>;
}
