import { XMLParser, XMLValidator } from 'fast-xml-parser';

/** The file is no invoice, or one of its figures cannot be read; the message says what, for a person. */
export class NotAnInvoice extends Error {
  override readonly name = 'NotAnInvoice';
}

/** An element: its children by their names without prefixes, its text as `#`, its attributes as `@name`. */
export type Node = { readonly [name: string]: unknown };

// Entities are not expanded and documents with their own definitions are refused: nothing in a file can grow.
const parser = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: '@',
  textNodeName: '#',
  removeNSPrefix: true,
  parseTagValue: false,
  parseAttributeValue: false,
  processEntities: true,
  trimValues: true,
});

const LARGEST = 5_000_000;

/** All children of one name. */
export const list = (value: unknown): Node[] =>
  (Array.isArray(value) ? value : value === undefined || value === '' ? [] : [value]).map((one) =>
    typeof one === 'object' && one !== null ? (one as Node) : { '#': one },
  );

/** The first element at a path. */
export const first = (node: Node | undefined, ...path: string[]): Node | undefined => {
  let at: Node | undefined = node;
  for (const name of path) at = at ? list(at[name])[0] : undefined;
  return at;
};

/** The text at a path; empty where there is none. */
export const text = (node: Node | undefined, ...path: string[]): string => {
  const found = first(node, ...path);
  return found ? String(found['#'] ?? '').trim() : '';
};

/**
 * An XML document as its elements.
 *
 * @throws NotAnInvoice where it is too large, not well-formed, or holds definitions of its own
 */
export function treeOf(xml: string): Node {
  if (xml.length > LARGEST) throw new NotAnInvoice('The file is too large');
  if (/<!DOCTYPE|<!ENTITY/i.test(xml)) throw new NotAnInvoice('The file holds definitions of its own');
  if (XMLValidator.validate(xml) !== true) throw new NotAnInvoice('The file is no well-formed XML');
  return parser.parse(xml) as Node;
}
