import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { unpackShow, type Unpacked } from '../src/core/show/archive';
import { readShow, ShowFileError, type Finding } from '../src/core/show/validate';
import { catalogue } from '../src/nodes/catalogue';
import { readArguments, UsageError, type Options } from './arguments';
import { readRenderer } from './browser';
import { EngineFault } from './engine-page';
import { evalLines } from './eval';
import { exportShow } from './export';
import { exportFlags, exportOptions } from './export-spec';
import { isField, printFields } from './fields';
import { findAll } from './find';
import { loopLines } from './loops';
import { pack } from './pack';
import { startPlayer } from './player';
import { preflight } from './preflight';
import { renderFrames } from './render';

const help = `Pyrvel on the command line. SHOW is a .pyrvel.json or .pyrvel.zip file.

  check SHOW
      prints a line for each finding of the show as it would open; ends with 1 if there is an error
  eval SHOW --scene NAME --node NAME --frames 0..60 [--fps 60]
      prints the samples of a signal, the points of a shape or the places of copies as CSV;
      of a field, with --at x,y,z, its distance and colour there
  loops SHOW [--scene NAME]
      prints how long loops are, after how long all that turns is back, and what does not fit
  preflight SHOW [--scene NAME] [--cost] [--report FILE]
      draws each scene through its loop, the running order and recorded moves, and says what must not go on stage:
      flashes that can hurt (ITU-R BT.1702, WCAG 2.3.1), files that are missing; and what had better not: loops that
      do not close; ends with 1 on the former. --cost also times frames at full size; --report keeps all of it as
      .html or .json
  render SHOW --scene NAME [--node NAME] --frames 0,30,60..119 --size WxH [--fps 60] --out FOLDER
      writes frame-00000.png … from the real engine; --renderer swiftshader draws as a browser without a
      graphics card does, else the system's OpenGL draws where it works
  export SHOW --scene NAME | --cues | --moves --to FILE
      exports a video (webm, mp4), images (frames/####.png, exr, jpg, webp), a moving preview (gif, webp) or the
      pixels of a string (csv, pcap). Broken off, the same command goes on. See docs/export.md for all options:
      --frames A..B | --loop [--closed]  --size WxH  --fps N  --node NAME  --output NAME  --jobs N
      --supersample 1..4  --subframes 1..64 --shutter DEGREES  --codec vp9|av1|avc|hevc  --sound opus|aac|pcm
      --quality low|medium|high|very-high | --bitrate N  --effort realtime|careful  --bits 8|16|32
      --alpha --linear --depth  --hand-seconds N  --again  --renderer NAME
      --farm --redis URL hands the pieces to all workers that listen there
  farm worker [--redis URL]
      draws pieces of exports until it is stopped; any number of machines can do so
  player --host ADDRESS [--name NAME] [--code DIGITS]
      shows a screen of the wall in a window that fills the display; ADDRESS and the code stand in Machines on the
      main machine. Goes to the spare when that is gone. See docs/machines.md
  pack SHOW.pyrvel.json --files FOLDER --out SHOW.pyrvel.zip
      packs a show with its files, found in the folder by name or id

--scene and --node can be given several times: starting takes longer than most frames.
`;

function readFile(file: string | undefined): Unpacked {
  if (file === undefined) throw new UsageError('The show file is missing.');
  if (!existsSync(file)) throw new UsageError(`There is no file ${file}.`);
  return unpackShow(readFileSync(file));
}

const redisOf = (options: Options): string =>
  options.get('redis') ?? process.env.REDIS_URL ?? 'redis://127.0.0.1:6379';

function needEngine(): void {
  if (!existsSync(path.resolve(import.meta.dirname, '../dist/render.html')))
    throw new UsageError('The engine is not built yet. Run npm run build first.');
}

function check(text: string): number {
  let findings: readonly Finding[];
  try {
    ({ findings } = readShow(text, catalogue));
  } catch (error) {
    if (!(error instanceof ShowFileError)) throw error;
    findings = error.findings;
  }
  for (const { level, where, what } of findings) console.log(`${level}: ${where ? `${where}: ` : ''}${what}`);
  if (findings.length === 0) console.log('Nothing to remark.');
  return findings.some((finding) => finding.level === 'error') ? 1 : 0;
}

async function main(words: string[]): Promise<number> {
  const [command, ...rest] = words;
  switch (command) {
    case 'check': {
      const { plain } = readArguments(rest, []);
      return check(readFile(plain[0]).text);
    }
    case 'eval': {
      const { plain, options } = readArguments(rest, ['scene', 'node', 'frames', 'fps', 'at']);
      const { text, files } = readFile(plain[0]);
      const { show } = readShow(text, catalogue);
      const asked = findAll(show, options.all('scene'), options.all('node'));
      if (asked.some(({ nodes }) => nodes.some(isField))) {
        needEngine();
        await printFields(show, files, options, (line) => console.log(line));
        return 0;
      }
      for (const line of evalLines(show, options, (remark) => console.error(remark))) console.log(line);
      return 0;
    }
    case 'loops': {
      const { plain, options } = readArguments(rest, ['scene']);
      const { show } = readShow(readFile(plain[0]).text, catalogue);
      for (const line of loopLines(show, options)) console.log(line);
      return 0;
    }
    case 'preflight': {
      const { plain, options } = readArguments(rest, ['scene', 'renderer', 'report'], ['cost']);
      const { text, files } = readFile(plain[0]);
      const { show, findings } = readShow(text, catalogue);
      for (const { level, where, what } of findings) console.log(`${level}: ${where}: ${what}`);
      needEngine();
      const fails = await preflight(
        show,
        files,
        options,
        (line) => console.log(line),
        (name, text) => writeFileSync(name, text),
      );
      return fails ? 1 : 0;
    }
    case 'player': {
      const { options } = readArguments(rest, ['host', 'name', 'code']);
      return startPlayer(options, (line) => console.log(line));
    }
    case 'pack': {
      const { plain, options } = readArguments(rest, ['files', 'out']);
      const [files, out] = [options.get('files'), options.get('out')];
      if (files === undefined || out === undefined) throw new UsageError('--files and --out are needed.');
      const { show } = readShow(readFile(plain[0]).text, catalogue);
      writeFileSync(out, pack(show, files));
      console.log(out);
      return 0;
    }
    case 'render': {
      const { plain, options } = readArguments(rest, [
        'scene',
        'node',
        'frames',
        'size',
        'fps',
        'out',
        'renderer',
      ]);
      const { text, files } = readFile(plain[0]);
      const { show } = readShow(text, catalogue);
      needEngine();
      await renderFrames(show, files, options, (line) => console.log(line));
      return 0;
    }
    case 'export': {
      const { plain, options } = readArguments(rest, exportOptions, exportFlags);
      const { text, files } = readFile(plain[0]);
      const { show } = readShow(text, catalogue);
      needEngine();
      const say = (line: string): void => console.log(line);
      const isFarmed = options.get('farm') !== undefined;
      // Most exports need no Redis, and its packages take their time to load.
      const runner = isFarmed ? (await import('./farm')).farmRunner(redisOf(options), say) : undefined;
      await exportShow(show, files, options, say, runner);
      return 0;
    }
    case 'farm': {
      const { plain, options } = readArguments(rest, ['redis', 'renderer']);
      if (plain[0] !== 'worker') throw new UsageError('farm worker is what there is.');
      needEngine();
      const { farmWorker } = await import('./farm');
      const renderer = readRenderer(options.get('renderer'));
      const worker = await farmWorker(redisOf(options), renderer, (line) => console.log(line));
      await new Promise<void>((resolve) => {
        process.once('SIGINT', resolve);
        process.once('SIGTERM', resolve);
      });
      await worker.close();
      return 0;
    }
    case undefined:
    case 'help':
    case '--help':
      console.log(help);
      return 0;
    default:
      throw new UsageError(`There is no command ${command}.\n\n${help}`);
  }
}

try {
  process.exitCode = await main(process.argv.slice(2));
} catch (error) {
  const isSaid =
    error instanceof UsageError || error instanceof ShowFileError || error instanceof EngineFault;
  if (!isSaid) throw error;
  console.error(error.message);
  process.exitCode = error instanceof UsageError ? 2 : 1;
}
