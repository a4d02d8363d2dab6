import type { Texture } from 'three';

/** Pictures that follow each other in a file, for one node. */
export interface MovingPictures {
  /** The newest frame that is there. */
  readonly texture: Texture;
  readonly size: [number, number];
  readonly hasFrame: boolean;
  /** Seconds; 0 until the file is open. */
  readonly duration: number;
  readonly error: string | null;
  /** Asks for the frame at a second; it comes when it is decoded. */
  want(seconds: number): void;
  /** Resolves when the frame at exactly that second is there, or the file has failed. */
  reach(seconds: number): Promise<void>;
  dispose(): void;
}
