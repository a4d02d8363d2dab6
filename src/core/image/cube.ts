/** A look-up table for colours, as a .cube file holds it. */
export interface CubeTable {
  title: string;
  /** 1: a curve for each channel. 3: a colour for each colour. */
  dimensions: 1 | 3;
  /** Entries along each axis. */
  size: number;
  domainMin: [number, number, number];
  domainMax: [number, number, number];
  /** Red, green, blue of each entry; in a table of three dimensions red runs fastest. */
  entries: Float32Array;
}

/** A .cube file that cannot be read; its message says which line is wrong. */
export class CubeError extends Error {
  override name = 'CubeError';
}

const largest = { 1: 65536, 3: 65 } as const;

function three(words: readonly string[], line: number): [number, number, number] {
  const values = words.map(Number);
  if (values.length !== 3 || values.some((v) => !Number.isFinite(v)))
    throw new CubeError(`Line ${line}: three numbers are needed, and it holds “${words.join(' ')}”.`);
  return values as [number, number, number];
}

/** Reads a .cube file (Cube LUT Specification 1.0). Throws CubeError. */
export function parseCube(text: string): CubeTable {
  const table: Omit<CubeTable, 'entries' | 'dimensions' | 'size'> = {
    title: '',
    domainMin: [0, 0, 0],
    domainMax: [1, 1, 1],
  };
  let dimensions: 1 | 3 | null = null;
  let size = 0;
  const entries: number[] = [];
  text.split(/\r\n|\n|\r/).forEach((raw, index) => {
    const content = raw.trim();
    if (!content || content.startsWith('#')) return;
    const line = index + 1;
    const [word, ...rest] = content.split(/\s+/);
    if (word === 'TITLE') table.title = /"(.*)"/.exec(content)?.[1] ?? rest.join(' ');
    else if (word === 'LUT_1D_SIZE' || word === 'LUT_3D_SIZE') {
      if (dimensions !== null) throw new CubeError(`Line ${line}: the size of the table is given twice.`);
      dimensions = word === 'LUT_1D_SIZE' ? 1 : 3;
      size = Number(rest[0]);
      if (!Number.isInteger(size) || size < 2 || size > largest[dimensions])
        throw new CubeError(
          `Line ${line}: a size of ${rest[0] ?? 'nothing'} cannot be read; it has to be a whole number from 2 to ${largest[dimensions]}.`,
        );
    } else if (word === 'DOMAIN_MIN') table.domainMin = three(rest, line);
    else if (word === 'DOMAIN_MAX') table.domainMax = three(rest, line);
    else if (/^[A-Z_]/.test(word)) throw new CubeError(`Line ${line}: nothing is known of ${word}.`);
    else entries.push(...three([word, ...rest], line));
  });
  if (dimensions === null)
    throw new CubeError('It has no line LUT_1D_SIZE or LUT_3D_SIZE, so it is not a .cube table.');
  const needed = dimensions === 1 ? size : size ** 3;
  if (entries.length !== 3 * needed)
    throw new CubeError(
      `It holds ${entries.length / 3} colours, and a table of ${dimensions === 1 ? size : `${size} x ${size} x ${size}`} needs ${needed}. Export it again.`,
    );
  for (let c = 0; c < 3; c++)
    if (!(table.domainMax[c] > table.domainMin[c]))
      throw new CubeError('DOMAIN_MAX has to lie above DOMAIN_MIN in every channel.');
  return { ...table, dimensions, size, entries: new Float32Array(entries) };
}

/**
 * The table as pixels. Row 0 is a head: dimensions and size, the least value, the greatest value. Below come the
 * entries, `size` a row.
 */
export function cubePixels(table: CubeTable): { width: number; height: number; rgba: Float32Array } {
  const perRow = table.dimensions === 1 ? Math.min(table.size, 4096) : Math.max(4, table.size);
  const rows = table.dimensions === 1 ? Math.ceil(table.size / perRow) : table.size ** 2;
  const width = Math.max(4, perRow);
  const rgba = new Float32Array(width * (rows + 1) * 4);
  rgba.set([table.dimensions, table.size, 0, 1, ...table.domainMin, 1, ...table.domainMax, 1]);
  const inRow = table.dimensions === 1 ? perRow : table.size;
  for (let k = 0; k < table.entries.length / 3; k++) {
    const at = 4 * ((1 + Math.floor(k / inRow)) * width + (k % inRow));
    for (let c = 0; c < 3; c++) rgba[at + c] = table.entries[3 * k + c];
    rgba[at + 3] = 1;
  }
  return { width, height: rows + 1, rgba };
}
