import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';

const assets = path.resolve(import.meta.dirname, 'dist/assets');

/** Scripts, and all that they import before they can do anything. */
function withImports(files) {
  const found = new Set();
  const visit = (file) => {
    if (found.has(file)) return;
    found.add(file);
    const text = readFileSync(path.join(assets, file), 'utf8');
    for (const [, next] of text.matchAll(/(?:import|from)\s*["']\.\/([^"']+\.js)["']/g)) visit(next);
  };
  for (const file of files) visit(file);
  return [...found].map((file) => `dist/assets/${file}`);
}

/** The scripts that a page loads first. */
function firstLoad(page) {
  const html = readFileSync(path.resolve(import.meta.dirname, 'dist', page), 'utf8');
  return withImports([...html.matchAll(/assets\/([^"']+\.js)/g)].map(([, file]) => file));
}

const worker = readdirSync(assets).filter((file) => /^worker-.*\.js$/.test(file));

export default [
  { name: 'what Build loads first', path: firstLoad('index.html'), gzip: true, limit: '450 kB' },
  { name: 'the engine', path: withImports(worker), gzip: true, limit: '350 kB' },
];
