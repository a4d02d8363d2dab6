import { XMLParser } from 'fast-xml-parser';

/** An element of XML. */
export interface XmlNode {
  /** Without its namespace. */
  name: string;
  attributes: Readonly<Record<string, string>>;
  /** All text right inside of it. */
  text: string;
  children: XmlNode[];
}

type Parsed = Record<string, unknown>;

const parser = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: '',
  preserveOrder: true,
  parseTagValue: false,
  // Entities of a file are never expanded: a few lines of them can fill the memory.
  processEntities: false,
});

const textOf = (parsed: readonly Parsed[]): string =>
  parsed
    .map((entry) => entry['#text'])
    .filter((text) => typeof text === 'string')
    .join('');

function asNodes(parsed: unknown): XmlNode[] {
  return (Array.isArray(parsed) ? (parsed as Parsed[]) : []).flatMap((entry) => {
    const name = Object.keys(entry).find((key) => key !== ':@');
    if (!name || name.startsWith('#') || name.startsWith('?')) return [];
    const inside = Array.isArray(entry[name]) ? (entry[name] as Parsed[]) : [];
    return [
      {
        name: name.replace(/^.*:/, ''),
        attributes: (entry[':@'] ?? {}) as Record<string, string>,
        text: textOf(inside),
        children: asNodes(inside),
      },
    ];
  });
}

/** The elements of an XML text, in order. Throws if it is none. */
export const readXml = (text: string): XmlNode[] => asNodes(parser.parse(text));

/** The first element of that name right inside of another. */
export const childOf = (node: XmlNode | undefined, name: string): XmlNode | undefined =>
  node?.children.find((child) => child.name === name);

/** All elements of that name, at any depth. */
export function* allNamed(nodes: readonly XmlNode[], name: string): Generator<XmlNode> {
  for (const node of nodes) {
    if (node.name === name) yield node;
    yield* allNamed(node.children, name);
  }
}
