import { ShaderError } from './gpu';

/** A line of a compiler's report about a node's own text, which is source 1. */
const ownLine = /(?:ERROR|WARNING):\s*1:(\d+):\s*(.*)/;

/** A place in a shader text and what is wrong there. */
interface CodeFault {
  line: number;
  message: string;
}

/** Faults that a compiler found in a node's own text. */
function codeFaults(log: string): CodeFault[] {
  return log.split('\n').flatMap((line) => {
    const found = ownLine.exec(line);
    return found ? [{ line: Number(found[1]), message: found[2].trim() }] : [];
  });
}

/** What went wrong with a node, in a sentence; faults of its own text name the line. */
export function describeFault(error: unknown): string {
  if (error instanceof ShaderError) {
    const own = codeFaults(error.log);
    if (own.length) return own.map(({ line, message }) => `Line ${line}: ${message}`).join('\n');
  }
  return error instanceof Error ? error.message : String(error);
}
