/** A canvas without a document: it remembers what was put on it. */
export class FakeCanvas {
  width = 300;
  height = 150;
  readonly style: Record<string, string> = {};
  readonly dataset: Record<string, string> = {};
  /** Bytes that were drawn on it. */
  drawn: Uint8ClampedArray | null = null;
  readonly offscreen = { of: this };
  constructor(private readonly box: FakeBox) {}
  transferControlToOffscreen(): object {
    return this.offscreen;
  }
  getContext(): {
    putImageData(image: { data: Uint8ClampedArray }): void;
    transferFromImageBitmap(bitmap: unknown): void;
  } {
    return {
      transferFromImageBitmap: () => {
        this.draws++;
        this.arrive();
      },
      putImageData: ({ data }) => {
        this.drawn = data;
        this.draws++;
      },
    };
  }
  /** How often something was drawn on it. */
  draws = 0;
  get isConnected(): boolean {
    return this.box.canvases.includes(this);
  }
  /** The page has a picture that was put on it elsewhere. */
  arrive(): void {
    Object.assign(this, { width: 64, height: 36 });
  }
  remove(): void {
    this.box.canvases = this.box.canvases.filter((canvas) => canvas !== this);
  }
}

/** An element that outputs are shown in: the first canvas lies behind the others. */
export class FakeBox {
  canvases: FakeCanvas[] = [];
  /** All that it ever had. */
  readonly made: FakeCanvas[] = [];
  readonly ownerDocument = {
    defaultView: globalThis,
    createElement: (): FakeCanvas => {
      const canvas = new FakeCanvas(this);
      this.made.push(canvas);
      return canvas;
    },
  };
  prepend(canvas: FakeCanvas): void {
    this.canvases.unshift(canvas);
  }
  append(canvas: FakeCanvas): void {
    this.canvases.push(canvas);
  }
  readonly style: Record<string, string> = {};
  querySelectorAll(): FakeCanvas[] {
    return [...this.canvases];
  }
  get element(): HTMLElement {
    return this as unknown as HTMLElement;
  }
}

/** Puts the classes of pictures that pages draw in place. */
export function installImageData(): void {
  Object.defineProperty(globalThis, 'ImageData', {
    configurable: true,
    value: class {
      constructor(
        readonly data: Uint8ClampedArray,
        readonly width: number,
        readonly height: number,
      ) {}
    },
  });
  Object.defineProperty(globalThis, 'OffscreenCanvas', {
    configurable: true,
    value: class {
      getContext(): object {
        return { putImageData: () => undefined };
      }
      convertToBlob(): Promise<Blob> {
        return Promise.resolve(new Blob(['picture']));
      }
    },
  });
}
