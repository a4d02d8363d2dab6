import { rangeOf, partsOf, type ControlSpec } from '../src/core/kind/controls';
import { catalogue, familyLabels, familyOf } from '../src/nodes/catalogue';

const code = (text: string): string => `\`${text}\``;

function defaultText(spec: ControlSpec): string {
  if (spec.type === 'choice') return spec.options[spec.default];
  if (spec.type === 'gradient') return `${spec.default.length} stops`;
  if (spec.type === 'toggle') return spec.default ? 'on' : 'off';
  if (Array.isArray(spec.default)) return spec.default.join(', ');
  return String(spec.default).replace(/\n/g, '; ') || 'empty';
}

function rangeText(spec: ControlSpec): string {
  if (spec.type === 'choice')
    return Object.entries(spec.options)
      .map(([id, label]) => `${label} ${code(id)}`)
      .join(', ');
  if (!partsOf(spec).length || spec.type === 'toggle' || spec.type === 'colour') return '';
  const [low, high] = rangeOf(spec);
  const unit = 'unit' in spec && spec.unit ? ` ${spec.unit}` : '';
  return `${low} to ${high}${unit}`;
}

/** The page of all node kinds, made from their definitions. */
export function nodeKindsPage(): string {
  const lines = [
    '# Node kinds',
    '',
    'Made from the definitions in `src/nodes` by `npm run generate`. What stands `like this` is what show files hold: the ids of kinds, inputs, controls and options. Parts of a control are driven as `place.x`, `colour.r`.',
    '',
  ];
  let family = '';
  for (const kind of catalogue.values()) {
    const its = familyOf(kind);
    if (its !== family) lines.push(`## ${familyLabels[its]}`, '');
    family = its;
    lines.push(`### ${kind.label}`, '', `${code(kind.id)} gives ${kind.output}. ${kind.summary}`, '');
    const inputs = Object.entries(kind.inputs);
    if (inputs.length) {
      lines.push(
        ...inputs.map(
          ([id, i]) =>
            `- takes **${i.label}** ${code(id)} (${i.carries}${i.also ? ` or ${i.also}` : ''}${i.many ? ', any number' : ''}): ${i.help}`,
        ),
        '',
      );
    }
    const controls = Object.entries(kind.controls);
    if (controls.length) {
      lines.push('| control | id | type | home | useful range | |', '| --- | --- | --- | --- | --- | --- |');
      for (const [id, spec] of controls)
        lines.push(
          `| ${spec.label} | ${code(id)} | ${spec.type} | ${defaultText(spec)} | ${rangeText(spec)} | ${spec.help.replace(/\|/g, '\\|')} |`,
        );
      lines.push('');
    }
  }
  return `${lines.join('\n').trimEnd()}\n`;
}
