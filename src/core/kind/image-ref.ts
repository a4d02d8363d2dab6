/** An image input as the core sees it: where it comes from and how large it is. Pixels stay with the engine. */
export interface ImageRef {
  node: string;
  width: number;
  height: number;
  /** Set when it carries the frame before. */
  back: string | null;
}
