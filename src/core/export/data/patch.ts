import { partName, partsOf } from '../../kind/controls';
import { kindOf, type Carries, type Catalogue } from '../../kind/kind';
import { portLabel } from '../../patch/wiring';
import { numbersOf } from '../../run/node-run';
import type { PatchNode, Scene } from '../../document/types';

/** Colours of wires on paper: those of the light theme. */
const wireColours: Record<Carries, string> = {
  image: '#0f8a83',
  signal: '#b36b00',
  shape: '#b8405c',
  prop: '#7d6a45',
  field: '#6a4fb0',
};

const shown = (value: number): string => String(Number(value.toPrecision(4)));

/** Nodes from left to right, as a reader goes through them. */
const inOrder = (scene: Scene): PatchNode[] =>
  Object.values(scene.nodes).sort((a, b) => a.place[0] - b.place[0] || a.place[1] - b.place[1]);

function controlLines(node: PatchNode, catalogue: Catalogue): string[] {
  const kind = kindOf(catalogue, node);
  if (!kind) return [];
  const lines: string[] = [];
  for (const [name, spec] of Object.entries(kind.controls)) {
    const value = node.controls[name];
    const isSet = value !== undefined && JSON.stringify(value) !== JSON.stringify(spec.default);
    const parts = partsOf(spec).map((part) => partName(name, part));
    const formulas = parts.filter((part) => node.formulas[part] !== undefined);
    const motions = parts.filter((part) => node.motions[part]?.length);
    if (formulas.length)
      for (const part of formulas)
        lines.push(`  - ${part} = \`${node.formulas[part].replaceAll('`', "'")}\``);
    else if (isSet && typeof value !== 'object')
      lines.push(`  - ${spec.label}: ${String(value).split('\n')[0].slice(0, 60)}`);
    else if (isSet && Array.isArray(value) && typeof value[0] === 'number')
      lines.push(`  - ${spec.label}: ${numbersOf(spec, value).map(shown).join(', ')}`);
    for (const part of motions)
      lines.push(`  - ${part} moves: ${node.motions[part].map(({ type }) => type).join(', ')}`);
  }
  return lines;
}

/** A patch as notes: its nodes with what was set on them, and what each reads. Markdown. */
export function patchMarkdown(scene: Scene, catalogue: Catalogue): string {
  const { length, unit, lock } = scene.loop;
  const lines = [`# ${scene.name}`, '', `Loop of ${shown(length)} ${unit}${lock ? ', locked' : ''}.`, ''];
  for (const node of inOrder(scene)) {
    const kind = kindOf(catalogue, node);
    const off = node.on ? '' : ' (off)';
    lines.push(`- **${node.name}** · ${kind?.label ?? node.kind}${off}`, ...controlLines(node, catalogue));
    for (const wire of Object.values(scene.wires)) {
      if (wire.to.node !== node.id) continue;
      const from = scene.nodes[wire.from.node]?.name ?? wire.from.node;
      const port = kind ? portLabel(kind, wire.to.port) : wire.to.port;
      lines.push(`  - ${port} ← **${from}**${wire.back ? ' (return wire)' : ''}`);
    }
  }
  return `${lines.join('\n')}\n`;
}

const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');

/** Size of a card on the drawing, and the space around all. */
const card = { width: 150, height: 44 };
const margin = 40;

/** A patch as a drawing: cards where they lie, and wires in the colour of what they carry. SVG. */
export function patchSvg(scene: Scene, catalogue: Catalogue): string {
  const nodes = inOrder(scene);
  const xs = nodes.map(({ place }) => place[0]);
  const ys = nodes.map(({ place }) => place[1]);
  const [left, top] = [Math.min(0, ...xs) - margin, Math.min(0, ...ys) - margin];
  const width = Math.max(card.width, ...xs) + card.width + margin - left;
  const height = Math.max(card.height, ...ys) + card.height + margin - top;
  const wires = Object.values(scene.wires).flatMap(({ from, to, back }) => {
    const [a, b] = [scene.nodes[from.node], scene.nodes[to.node]];
    if (!a || !b) return [];
    const carries = kindOf(catalogue, a)?.output ?? 'image';
    // Signals rise: they leave above and enter below.
    const rises = carries === 'signal';
    const [x1, y1] = rises
      ? [a.place[0] + card.width / 2, a.place[1]]
      : [a.place[0] + card.width, a.place[1] + card.height / 2];
    const [x2, y2] = rises
      ? [b.place[0] + card.width / 2, b.place[1] + card.height]
      : [b.place[0], b.place[1] + card.height / 2];
    const reach = Math.max(30, Math.abs(x2 - x1) / 2);
    const path = rises
      ? `M${x1} ${y1}C${x1} ${y1 - 40} ${x2} ${y2 + 40} ${x2} ${y2}`
      : `M${x1} ${y1}C${x1 + reach} ${y1} ${x2 - reach} ${y2} ${x2} ${y2}`;
    const dash = back ? ' stroke-dasharray="6 4"' : '';
    return `<path d="${path}" fill="none" stroke="${wireColours[carries]}" stroke-width="2"${dash}/>`;
  });
  const cards = nodes.map((node) => {
    const [x, y] = node.place;
    const kind = kindOf(catalogue, node);
    const edge = wireColours[kind?.output ?? 'image'];
    return [
      `<g${node.on ? '' : ' opacity="0.5"'}>`,
      `<rect x="${x}" y="${y}" width="${card.width}" height="${card.height}" rx="4" fill="#fff" stroke="${edge}"/>`,
      `<text x="${x + 10}" y="${y + 19}" font-weight="600">${escaped(node.name.slice(0, 22))}</text>`,
      `<text x="${x + 10}" y="${y + 34}" fill="#666" font-size="10">${escaped(kind?.label ?? node.kind)}</text>`,
      '</g>',
    ].join('');
  });
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${left} ${top} ${width} ${height}" width="${width}" height="${height}" font-family="sans-serif" font-size="12">`,
    `<title>${escaped(scene.name)}</title>`,
    ...wires,
    ...cards,
    '</svg>',
    '',
  ].join('\n');
}
