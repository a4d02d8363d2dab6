import { readFileSync } from 'node:fs';
import path from 'node:path';

const assets = path.resolve(import.meta.dirname, 'dist/assets');

/** The scripts that a page loads before it can do anything: those it names, and all that they import. */
function firstLoad(page) {
  const found = new Set();
  const visit = (file) => {
    if (found.has(file)) return;
    found.add(file);
    const text = readFileSync(path.join(assets, file), 'utf8');
    for (const [, next] of text.matchAll(/(?:import|from)\s*["']\.\/([^"']+\.js)["']/g)) visit(next);
  };
  const html = readFileSync(path.resolve(import.meta.dirname, 'dist', page), 'utf8');
  for (const [, file] of html.matchAll(/assets\/([^"']+\.js)/g)) visit(file);
  return [...found].map((file) => `dist/assets/${file}`);
}

export default [
  { name: 'what Build loads first', path: firstLoad('index.html'), gzip: true, limit: '490 kB' },
  { name: 'the engine', path: 'dist/assets/worker-*.js', gzip: true, limit: '350 kB' },
];
