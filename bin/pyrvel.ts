import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { unpackShow, type Unpacked } from '../src/core/show/archive';
import { checkShow, readShow, ShowFileError, type Finding } from '../src/core/show/validate';
import { catalogue } from '../src/nodes/catalogue';
import { readArguments, UsageError } from './arguments';
import { evalLines } from './eval';

const help = `Pyrvel on the command line:

  eval SHOW.json --scene NAME --node NAME --frames A..B [--fps 60]
      prints the samples of a signal, or the points of a shape, as CSV
  render SHOW.json --scene NAME --frames A..B --size WxH --out DIR [--node NAME]
      writes frame-00000.png … from the real engine
  check SHOW.json
      prints a line for each finding; ends with 1 if there is an error
`;

function readFile(file: string | undefined): Unpacked {
  if (file === undefined) throw new UsageError('The show file is missing.');
  if (!existsSync(file)) throw new UsageError(`There is no file ${file}.`);
  return unpackShow(readFileSync(file));
}

function check(text: string): number {
  let findings: readonly Finding[];
  try {
    readShow(text, catalogue);
    findings = checkShow(JSON.parse(text), catalogue);
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
      const { plain, options } = readArguments(rest, ['scene', 'node', 'frames', 'fps']);
      const { show } = readShow(readFile(plain[0]).text, catalogue);
      for (const line of evalLines(show, options)) console.log(line);
      return 0;
    }
    case 'render': {
      const { plain, options } = readArguments(rest, ['scene', 'node', 'frames', 'size', 'out']);
      const { text, files } = readFile(plain[0]);
      const { show } = readShow(text, catalogue);
      if (!existsSync(path.resolve(import.meta.dirname, '../dist/render.html'))) {
        throw new UsageError('The engine is not built yet. Run npm run build first.');
      }
      // Loaded only here: eval and check need no browser.
      const { renderFrames } = await import('./render');
      await renderFrames(text, show, files, options, (line) => console.log(line));
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
  if (!(error instanceof UsageError) && !(error instanceof ShowFileError)) throw error;
  console.error(error.message);
  process.exitCode = error instanceof UsageError ? 2 : 1;
}
