/**
 * Writes what is derived: the catalogue of node kinds from the folder, the validator from the schema, and the docs made
 * from both. `--check` writes nothing and fails if a file is stale.
 */
import { readdirSync, readFileSync, writeFileSync, existsSync } from 'node:fs';
import path from 'node:path';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { compile as typesOf, type JSONSchema } from 'json-schema-to-typescript';
import standalone from 'ajv/dist/standalone/index.js';
import { showSchema } from '../src/core/document/schema';

const root = path.resolve(import.meta.dirname, '..');
const check = process.argv.includes('--check');
let stale = 0;

function put(file: string, text: string): void {
  const full = path.join(root, file);
  const now = existsSync(full) ? readFileSync(full, 'utf8') : '';
  if (now === text) return;
  if (check) {
    console.error(`${file} is stale. Run: npm run generate`);
    stale++;
  } else {
    writeFileSync(full, text);
    console.log(`wrote ${file}`);
  }
}

const camel = (file: string): string =>
  file.replace(/-([a-z0-9])/g, (_, letter: string) => letter.toUpperCase());

function catalogueText(): string {
  const families = ['image', 'signal', 'shape', 'prop', 'field', 'flow'];
  const files = families.flatMap((family) =>
    readdirSync(path.join(root, 'src/nodes', family))
      .filter((file) => file.endsWith('.ts') && !file.endsWith('.test.ts'))
      .sort()
      .map((file) => ({ family, name: file.slice(0, -3) })),
  );
  const imports = files.map(
    ({ family, name }) => `import ${camel(`${family}-${name}`)} from './${family}/${name}';`,
  );
  const entries = files.map(
    ({ family, name }) => `  { family: '${family}', kind: ${camel(`${family}-${name}`)} },`,
  );
  return [
    '// Written by scripts/generate.ts from the folder. Do not edit.',
    ...imports,
    '',
    'export const allKinds = [',
    ...entries,
    '] as const;',
    '',
  ].join('\n');
}

// Published as CommonJS: the function is the module itself or its default, as the loader has it.
const standaloneCode = (standalone as unknown as { default?: typeof standalone }).default ?? standalone;

/** The schema without what is only for readers: the validator carries the schema with it, into what the app loads first. */
const forMachines = (schema: unknown): unknown => {
  if (Array.isArray(schema)) return schema.map(forMachines);
  if (typeof schema !== 'object' || schema === null) return schema;
  return Object.fromEntries(
    Object.entries(schema)
      .filter(([key, value]) => !(['description', 'tsType'].includes(key) && typeof value === 'string'))
      .map(([key, value]) => [key, forMachines(value)]),
  );
};

function validatorText(): string {
  const ajv = new Ajv2020({
    inlineRefs: false,
    allErrors: true,
    strict: true,
    discriminator: true,
    code: { source: true, esm: true },
  });
  return `// Written by scripts/generate.ts from src/core/document/schema.ts. Do not edit.\n${standaloneCode(ajv, ajv.compile(forMachines(showSchema) as object))}\n`;
}

/** The types without what their maker says of where each was found and how it is bounded. */
const plainTypes = (text: string): string =>
  text
    .replace(/^ *\* (This interface was referenced by|via the `definition`).*\n/gm, '')
    .replace(/^ *\* @(min|max)Items \d+\n/gm, '')
    .replace(/^( *\*\n)+( *\*\/)/gm, '$2')
    .replace(/^ *\/\*\*\n *\*\/\n/gm, '');

const typesText = async (): Promise<string> =>
  plainTypes(
    await typesOf(structuredClone(showSchema) as unknown as JSONSchema, 'Show', {
      bannerComment: '// Written by scripts/generate.ts from src/core/document/schema.ts. Do not edit.',
      additionalProperties: false,
      unreachableDefinitions: true,
      format: true,
      style: { singleQuote: true, printWidth: 110 },
    }),
  );

put('src/nodes/catalogue.generated.ts', catalogueText());
put('src/core/document/types.generated.ts', await typesText());
put('src/core/document/validator.generated.js', validatorText());
put(
  'src/core/document/validator.generated.d.ts',
  '// Written by scripts/generate.ts. Do not edit.\ndeclare function validate(data: unknown): boolean;\nexport default validate;\n',
);
const { publishedSchema } = await import('./published-schema');
put('docs/show.schema.json', `${JSON.stringify(publishedSchema(), null, 2)}\n`);
const { nodeKindsPage } = await import('./node-kinds-page');
put('docs/node-kinds.md', nodeKindsPage());
process.exit(stale ? 1 : 0);
