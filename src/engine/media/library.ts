import type { Texture } from 'three';
import type { Model } from '../../core/shape/model/model';
import type { LetterRequest, Outline } from '../../core/text/outlines';
import { shippedFiles } from '../../core/show/shipped';
import { DeviceCamera, StandInCamera } from './camera';
import { ClipPlayer } from './clip';
import { Fonts } from './fonts';
import { MediaError, readLook, readPicture, type DrawVector } from './pictures';

/** A picture or look on its way, there, or failed. */
interface Loaded {
  texture: Texture | null;
  error: string | null;
  /** Pixels an SVG was drawn at; 0 for others. */
  vectorHeight: number;
}

interface LoadedModel {
  model: Model | null;
  error: Error | null;
}

/** An SVG is redrawn where it is shown this much larger than it was drawn. */
const vectorSlack = 1.01;
const firstVectorHeight = 256;

const unlisted = (id: string): MediaError =>
  new MediaError(`The show has no file ${id}. Choose the file again.`);

/**
 * Everything that comes from outside the patch: files of the show and shipped ones, fonts, cameras. Decodes beside the
 * frame loop; `version` rises whenever something arrived. The one owner of what it decodes.
 */
export class MediaLibrary {
  version = 0;
  private readonly files = new Map<string, { name: string; blob: Blob }>();
  private readonly awaited = new Map<
    string,
    { promise: Promise<Blob>; give(blob: Blob): void; refuse(error: Error): void }
  >();
  private readonly missing = new Map<string, MediaError>();
  /** Files that the show says it has: no other is waited for. */
  private expected: ReadonlySet<string> = new Set();
  private readonly shipped = new Map<string, Promise<Blob>>();
  private readonly pictures = new Map<string, Loaded>();
  private readonly looks = new Map<string, Loaded>();
  private readonly models = new Map<string, LoadedModel>();
  private readonly cameras = new Map<string, DeviceCamera>();
  private readonly standIn = new StandInCamera();
  private readonly underWay = new Set<Promise<void>>();
  private readonly bump = (): void => void this.version++;
  private readonly fonts = new Fonts(this.bump);

  constructor(
    private readonly drawVector: DrawVector,
    /** Asks the page for the pictures of a camera. */
    private readonly wantCamera: (device: string) => void,
  ) {}

  /** Takes a file of the show; what was decoded of an older one of that id is dropped. */
  addFile(id: string, name: string, blob: Blob): void {
    this.files.set(id, { name, blob });
    this.missing.delete(id);
    this.forget(id);
    this.awaited.get(id)?.give(blob);
    this.awaited.delete(id);
    this.bump();
  }

  /** Tells which files the show has, by id. One that is asked for and not among them is said to be missing at once. */
  expect(ids: Iterable<string>): void {
    this.expected = new Set(ids);
    for (const [id, waiting] of this.awaited) {
      if (this.expected.has(id)) continue;
      waiting.refuse(unlisted(id));
      this.awaited.delete(id);
    }
  }

  /** Says that a file of the show is not available: whoever waits for it is told so. */
  missFile(id: string, name: string): void {
    const missing = new MediaError(`The bytes of ${name} are missing here. Choose the file again.`);
    this.awaited.get(id)?.refuse(missing);
    this.awaited.delete(id);
    this.missing.set(id, missing);
  }

  private forget(id: string): void {
    for (const kept of [this.pictures, this.looks]) {
      kept.get(id)?.texture?.dispose();
      kept.delete(id);
    }
    this.models.delete(id);
  }

  /** The bytes of a file of the show, as soon as they are here. Rejects with MediaError if they never will be. */
  blobOf(id: string): Promise<Blob> {
    const known = this.files.get(id);
    if (known) return Promise.resolve(known.blob);
    const entry = shippedFiles.find((file) => file.id === id);
    if (entry) {
      let blob = this.shipped.get(id);
      if (!blob) {
        blob = fetch(entry.path).then((response) => {
          if (!response.ok) throw new MediaError(`${entry.name} does not come with this app any more.`);
          return response.blob();
        });
        this.shipped.set(id, blob);
      }
      return blob;
    }
    if (id.startsWith('shipped:'))
      return Promise.reject(
        new MediaError(`${id.slice(8)} does not come with this app. Choose another file.`),
      );
    const missing = this.missing.get(id);
    if (missing) return Promise.reject(missing);
    if (!this.expected.has(id)) return Promise.reject(unlisted(id));
    let waiting = this.awaited.get(id);
    if (!waiting) {
      let give: (blob: Blob) => void = () => undefined;
      let refuse: (error: Error) => void = () => undefined;
      const promise = new Promise<Blob>((resolve, reject) => {
        give = resolve;
        refuse = reject;
      });
      waiting = { promise, give, refuse };
      this.awaited.set(id, waiting);
    }
    return waiting.promise;
  }

  private load(
    kept: Map<string, Loaded>,
    id: string,
    read: (blob: Blob) => Promise<{ texture: Texture; vectorHeight: number }>,
  ): void {
    const entry = kept.get(id) ?? { texture: null, error: null, vectorHeight: 0 };
    kept.set(id, entry);
    const work = (async (): Promise<void> => {
      try {
        const { texture, vectorHeight } = await read(await this.blobOf(id));
        if (kept.get(id) !== entry) {
          texture.dispose();
          return;
        }
        const before = entry.texture;
        Object.assign(entry, { texture, vectorHeight, error: null });
        before?.dispose();
      } catch (error) {
        entry.error = error instanceof Error ? error.message : String(error);
      }
      this.bump();
    })();
    this.track(work);
  }

  private track(work: Promise<void>): void {
    const tracked = work.finally(() => this.underWay.delete(tracked));
    this.underWay.add(tracked);
  }

  /** A decoded picture. `height`: pixels it is shown at, which an SVG is drawn for. */
  picture(id: string, height: number): { texture: Texture | null; error: string | null } {
    const known = this.pictures.get(id);
    const needed = Math.min(4096, Math.max(firstVectorHeight, Math.ceil(height)));
    const grown = known && known.vectorHeight > 0 && known.vectorHeight * vectorSlack < needed;
    if (!known || grown) {
      if (known) known.vectorHeight = needed;
      this.load(this.pictures, id, async (blob) => {
        const { texture, isVector } = await readPicture(blob, this.drawVector, needed);
        return { texture, vectorHeight: isVector ? needed : 0 };
      });
    }
    return this.pictures.get(id)!;
  }

  look(id: string): { texture: Texture | null; error: string | null } {
    if (!this.looks.has(id))
      this.load(this.looks, id, async (blob) => ({ texture: await readLook(blob), vectorHeight: 0 }));
    return this.looks.get(id)!;
  }

  /** A model; null while it is on its way. Throws if it cannot be had. Its pictures become files of the name `id#number`. */
  model(id: string): Model | null {
    let known = this.models.get(id);
    if (!known) {
      const entry: LoadedModel = (known = { model: null, error: null });
      this.models.set(id, entry);
      this.track(
        (async (): Promise<void> => {
          try {
            const blob = await this.blobOf(id);
            // Few scenes have models.
            const { readModel } = await import('../../core/shape/model/read');
            entry.model = await readModel(new Uint8Array(await blob.arrayBuffer()));
            entry.model.pictures.forEach(({ bytes, type }, k) =>
              this.addFile(`${id}#${k}`, 'Picture of a model', new Blob([bytes], { type })),
            );
          } catch (error) {
            entry.error = error instanceof Error ? error : new Error(String(error));
          }
          this.bump();
        })(),
      );
    }
    if (known.error) throw known.error;
    return known.model;
  }

  clip(id: string): ClipPlayer {
    return new ClipPlayer(this.blobOf(id), this.bump);
  }

  /** The newest picture of a camera: the stand-in's for an empty device. */
  camera(device: string, time: number): { texture: Texture | null; error: string | null } {
    if (!device) return { texture: this.standIn.at(time), error: null };
    let camera = this.cameras.get(device);
    if (!camera) {
      camera = new DeviceCamera();
      this.cameras.set(device, camera);
      this.wantCamera(device);
    }
    return camera;
  }

  cameraFrame(device: string, bitmap: ImageBitmap): void {
    const camera = this.cameras.get(device);
    if (!camera) {
      bitmap.close();
      return;
    }
    camera.take(bitmap);
    this.bump();
  }

  cameraFault(device: string, message: string): void {
    const camera = this.cameras.get(device);
    if (camera) camera.error = message;
    this.bump();
  }

  get fontsReady(): boolean {
    void this.fonts.load().catch(() => undefined);
    return this.fonts.ready;
  }

  letters(request: LetterRequest): readonly Outline[] | null {
    return this.fonts.letters(request);
  }

  /** Resolves when all that was asked for is there or has failed. */
  async settled(): Promise<void> {
    while (this.underWay.size) await Promise.all(this.underWay);
    await this.fonts.settled();
  }
}
