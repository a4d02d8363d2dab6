import { rangeOf, partsOf, type ControlSpec } from '../src/core/kind/controls';
import { catalogue, familyLabels, familyOf } from '../src/nodes/catalogue';

function defaultText(spec: ControlSpec): string {
  if (spec.type === 'choice') return spec.options[spec.default];
  if (spec.type === 'gradient') return `${spec.default.length} stops`;
  if (spec.type === 'toggle') return spec.default ? 'on' : 'off';
  if (Array.isArray(spec.default)) return spec.default.join(', ');
  return String(spec.default).replace(/\n/g, '; ') || 'empty';
}

function rangeText(spec: ControlSpec): string {
  if (spec.type === 'choice') return Object.values(spec.options).join(', ');
  if (!partsOf(spec).length || spec.type === 'toggle' || spec.type === 'colour') return '';
  const [low, high] = rangeOf(spec);
  const unit = 'unit' in spec && spec.unit ? ` ${spec.unit}` : '';
  return `${low} to ${high}${unit}`;
}

/** The page of all node kinds, made from their definitions. */
export function nodeKindsPage(): string {
  const lines = ['# Node kinds', '', 'Made from the definitions in `src/nodes` by `npm run generate`.', ''];
  let family = '';
  for (const kind of catalogue.values()) {
    const its = familyOf(kind);
    if (its !== family) lines.push(`## ${familyLabels[its]}`, '');
    family = its;
    lines.push(`### ${kind.label}`, '', kind.summary, '');
    const inputs = Object.values(kind.inputs);
    if (inputs.length) {
      lines.push(
        ...inputs.map(
          (i) =>
            `- takes **${i.label}** (${i.carries}${i.also ? ` or ${i.also}` : ''}${i.many ? ', any number' : ''}): ${i.help}`,
        ),
        '',
      );
    }
    const controls = Object.values(kind.controls);
    if (controls.length) {
      lines.push('| control | home | range | |', '| --- | --- | --- | --- |');
      for (const spec of controls)
        lines.push(
          `| ${spec.label} | ${defaultText(spec)} | ${rangeText(spec)} | ${spec.help.replace(/\|/g, '\\|')} |`,
        );
      lines.push('');
    }
  }
  return `${lines.join('\n').trimEnd()}\n`;
}
