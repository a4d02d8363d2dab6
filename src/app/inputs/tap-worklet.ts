/**
 * Runs on the browser's audio thread: hands blocks of sound, mixed to one channel, to whoever holds the other end of the
 * port it is given. The engine holds it, so that sound reaches it past the page.
 */
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}
declare function registerProcessor(name: string, processor: new () => AudioWorkletProcessor): void;

const blockSize = 512;

class Tap extends AudioWorkletProcessor {
  private to: MessagePort | null = null;
  private block = new Float32Array(blockSize);
  private at = 0;

  constructor() {
    super();
    this.port.onmessage = ({ data }: MessageEvent<MessagePort>) => {
      this.to = data;
    };
  }

  process([input]: Float32Array[][]): boolean {
    if (!input?.length) return true;
    for (let k = 0; k < input[0].length; k++) {
      let sum = 0;
      for (const channel of input) sum += channel[k];
      this.block[this.at++] = sum / input.length;
      if (this.at < blockSize) continue;
      this.to?.postMessage(this.block, [this.block.buffer]);
      this.block = new Float32Array(blockSize);
      this.at = 0;
    }
    return true;
  }
}

registerProcessor('pyrvel-tap', Tap);
