import { choice, file, number, toggle } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { fit, fitGlsl } from '../glsl/media';

export default imageKind({
  id: 'clip',
  label: 'Clip',
  summary:
    'A video from a file, MP4 or WebM, or a zip of images, floats too: looped, slowed, cut, or moved to any place by a control.',
  words: ['video', 'film', 'movie', 'footage', 'loop', 'mp4', 'webm', 'play', 'image sequence', 'exr'],
  inputs: {},
  controls: {
    file: file({
      label: 'File',
      help: 'The video, or a zip of EXR, PNG, JPEG or WebP images named in their order: one of the show’s files, or one that ships with Pyrvel.',
      accepts: 'clip',
      default: 'shipped:ember-swarm.webm',
    }),
    fit,
    speed: number({
      label: 'Speed',
      help: '1 as it was filmed, 0 stands still, below 0 runs backwards.',
      default: 1,
      range: [-2, 2],
      min: -16,
      max: 16,
    }),
    after: choice({
      label: 'At the end',
      help: 'Begin again, turn back, or stay on the last frame.',
      options: { loop: 'Loop', turn: 'To and fro', hold: 'Hold' },
      default: 'loop',
    }),
    in: number({
      label: 'In',
      help: 'Seconds of the video at which it begins.',
      default: 0,
      range: [0, 20],
      min: 0,
      unit: 's',
    }),
    out: number({
      label: 'Out',
      help: 'Seconds of the video at which it ends; 0 is its own end.',
      default: 0,
      range: [0, 20],
      min: 0,
      unit: 's',
    }),
    byHand: toggle({
      label: 'Place by hand',
      help: 'Position says which frame is seen, and time does nothing.',
      default: false,
    }),
    position: number({
      label: 'Position',
      help: 'Place between in (0) and out (1).',
      default: 0,
      range: [0, 1],
      min: 0,
      max: 1,
      shownIf: (c) => c.byHand === true,
    }),
  },
  moves: (c) => !c.byHand && c.speed !== 0,
  paint: {
    type: 'shader',
    helpers: [fitGlsl],
    sheets: {
      video: {
        from: 'clip',
        control: 'file',
        timing: ({ controls: c, moment }) => ({
          time: moment.time,
          speed: c.speed,
          in: c.in,
          out: c.out,
          after: c.after,
          position: c.byHand ? c.position : null,
        }),
      },
    },
    body: `
      vec2 q = fitPlace(p, @video.size, aspect, pixel, $fit);
      return @video(q) * insidePlace(q);
    `,
  },
});
