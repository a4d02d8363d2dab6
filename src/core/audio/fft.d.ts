declare module 'fft.js' {
  /** Fast Fourier transform of a size that is a power of two. */
  export default class FFT {
    constructor(size: number);
    createComplexArray(): number[];
    /** Writes real and imaginary parts in turn; only the first half is filled. */
    realTransform(out: number[], input: ArrayLike<number>): void;
  }
}
