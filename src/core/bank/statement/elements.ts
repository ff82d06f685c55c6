import { SaxesParser } from 'saxes';
import { fault } from './fields';

/** An element: its name without prefix, its namespace, its attributes, what is in it, and the text directly in it. */
export type Element = {
  readonly name: string;
  readonly uri: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: Element[];
  text: string;
};

/** How deep elements may lie in each other: no statement comes near it. */
const DEEPEST = 64;

/**
 * An XML document as its elements. It has to be well formed; a document type declaration is refused, and only the five named and the
 * numeric entities are known, so that nothing in a file can grow.
 *
 * @throws RuleError `bad_input`
 */
export function elementsOf(xml: string): Element {
  const parser = new SaxesParser({ xmlns: true });
  const open: Element[] = [];
  let root: Element | null = null;
  parser.on('error', (error) => {
    throw fault('text', error.message);
  });
  parser.on('doctype', () => {
    throw fault('text', 'a document type declaration is not taken');
  });
  parser.on('opentag', ({ local, uri, attributes }) => {
    if (open.length > DEEPEST) throw fault('text', 'its elements lie too deep in each other');
    const element: Element = {
      name: local,
      uri,
      attributes: Object.fromEntries(
        Object.values(attributes).flatMap((one) => (one.uri === '' ? [[one.local, one.value]] : [])),
      ),
      children: [],
      text: '',
    };
    const parent = open.at(-1);
    if (parent) parent.children.push(element);
    else root = element;
    open.push(element);
  });
  parser.on('closetag', () => {
    open.pop();
  });
  const add = (text: string) => {
    const at = open.at(-1);
    if (at) at.text += text;
  };
  parser.on('text', add);
  parser.on('cdata', add);
  parser.write(xml).close();
  if (!root) throw fault('text', 'there is no element');
  return root;
}

/** The children of a name. */
export const all = (at: Element | undefined, name: string): Element[] =>
  at?.children.filter((child) => child.name === name) ?? [];

/** The first element at a path. */
export function first(from: Element | undefined, ...path: readonly string[]): Element | undefined {
  let at = from;
  for (const name of path) at = at?.children.find((child) => child.name === name);
  return at;
}

/** The text at a path; undefined where there is no such element. */
export const textAt = (from: Element | undefined, ...path: readonly string[]): string | undefined =>
  first(from, ...path)?.text;

/** Without the elements of other namespaces, all the way down. */
export const within = (element: Element, uri: string): Element => ({
  ...element,
  children: element.children.filter((child) => child.uri === uri).map((child) => within(child, uri)),
});
