import { lightPixels, type LightPixels } from './light-pixels';

/** Decodes one OpenEXR or Radiance file away from the frame loop; a damaged one may keep it busy forever. */
export interface LightRequest {
  bytes: ArrayBuffer;
  form: 'exr' | 'hdr';
}

export type LightAnswer = LightPixels | { error: string };

addEventListener('message', (event: MessageEvent<LightRequest>) => {
  let answer: LightAnswer;
  try {
    answer = lightPixels(event.data.bytes, event.data.form);
  } catch (error) {
    answer = { error: String(error) };
  }
  postMessage(answer, { transfer: 'rgba' in answer ? [answer.rgba.buffer] : [] });
});
