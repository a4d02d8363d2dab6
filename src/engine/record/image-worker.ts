import { encodeImage, type GrabbedImage } from './images';

interface WorkerScope {
  onmessage: ((event: MessageEvent<GrabbedImage>) => void) | null;
  postMessage(message: EncodedImage, transfer?: Transferable[]): void;
}

/** What becomes of a frame: its file, or why there is none. */
export type EncodedImage = { bytes: Uint8Array<ArrayBuffer> } | { fault: string };

const scope = self as unknown as WorkerScope;
scope.onmessage = ({ data }) => {
  encodeImage(data).then(
    (bytes) => scope.postMessage({ bytes }, [bytes.buffer]),
    (error: unknown) => scope.postMessage({ fault: error instanceof Error ? error.message : String(error) }),
  );
};
