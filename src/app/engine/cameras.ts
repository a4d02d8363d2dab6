import type { ToEngine } from '../../engine/protocol/protocol';

/** A camera that went is looked for again after this many milliseconds. */
const retryMs = 3000;

interface Feed {
  stream: MediaStream | null;
  video: HTMLVideoElement;
}

const reasons: Record<string, string> = {
  NotAllowedError: 'The browser may not use this camera. Allow it in the address bar.',
  NotFoundError: 'This camera is not there. Plug it in, or choose another.',
  OverconstrainedError: 'This camera is not there. Plug it in, or choose another.',
  NotReadableError: 'Another program holds this camera. Close that one.',
};

/** Opens the cameras that the engine asks for and sends their pictures; one that went is picked up again by itself. */
export class Cameras {
  private readonly feeds = new Map<string, Feed>();

  constructor(private readonly send: (message: ToEngine, transfer?: Transferable[]) => void) {}

  want(device: string): void {
    if (this.feeds.has(device)) return;
    const video = document.createElement('video');
    video.muted = true;
    video.playsInline = true;
    const feed: Feed = { stream: null, video };
    this.feeds.set(device, feed);
    const next = (): void => {
      if (video.readyState >= 2)
        void createImageBitmap(video, { imageOrientation: 'flipY' }).then((bitmap) =>
          this.send({ type: 'camera-frame', device, bitmap }, [bitmap]),
        );
      video.requestVideoFrameCallback(next);
    };
    video.requestVideoFrameCallback(next);
    void this.start(device, feed);
  }

  private async start(device: string, feed: Feed): Promise<void> {
    const again = (): void => void setTimeout(() => void this.start(device, feed), retryMs);
    try {
      feed.stream = await navigator.mediaDevices.getUserMedia({ video: { deviceId: { exact: device } } });
      feed.video.srcObject = feed.stream;
      await feed.video.play();
      feed.stream.getVideoTracks()[0].addEventListener('ended', () => {
        this.send({ type: 'camera-fault', device, message: reasons.NotFoundError });
        again();
      });
    } catch (error) {
      const name = error instanceof Error ? error.name : '';
      const message = reasons[name] ?? `The camera could not be opened (${String(error)}).`;
      this.send({ type: 'camera-fault', device, message });
      again();
    }
  }
}

/** Cameras of this machine. Their names are known only once one of them was allowed. */
export async function listCameras(): Promise<{ id: string; name: string }[]> {
  const devices = (await navigator.mediaDevices?.enumerateDevices()) ?? [];
  return devices
    .filter(({ kind, deviceId }) => kind === 'videoinput' && deviceId)
    .map(({ deviceId, label }, k) => ({ id: deviceId, name: label || `Camera ${k + 1}` }));
}

/** Asks for leave to use a camera, so that their names and ids can be read. */
export async function askForCameras(): Promise<{ id: string; name: string }[]> {
  const stream = await navigator.mediaDevices.getUserMedia({ video: true });
  for (const track of stream.getTracks()) track.stop();
  return listCameras();
}
