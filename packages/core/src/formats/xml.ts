import XMLBuilder from 'fast-xml-builder';
import { XMLParser } from 'fast-xml-parser';

/** An element of an XML document: its name, its attributes, and what stands inside, in order. */
export interface XmlElement {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly (XmlElement | string)[];
}

type Content = XmlElement | string | number;

/** Makes an element; what is left out or false is not written. */
export function element(
  name: string,
  attributes: Readonly<Record<string, string | number | undefined>> = {},
  ...children: readonly (Content | readonly Content[] | undefined | false)[]
): XmlElement {
  const given = Object.entries(attributes).flatMap(([key, value]) =>
    value === undefined ? [] : [[key, String(value)] as const],
  );
  return {
    name,
    attributes: Object.fromEntries(given),
    children: children
      .flat()
      .flatMap((child) =>
        child === undefined || child === false || child === '' ? [] : typeof child === 'number' ? String(child) : child,
      ),
  };
}

/** What no XML document can hold. Source: XML 1.0, section 2.2, production Char. */
// eslint-disable-next-line no-control-regex -- these are the characters that are looked for
const CONTROLS = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g;

function sayable(text: string): string {
  return text.replace(CONTROLS, '').replace(/\p{Cs}/gu, '');
}

type Ordered = Readonly<Record<string, unknown>>;

const builder = new XMLBuilder({
  preserveOrder: true,
  ignoreAttributes: false,
  attributeNamePrefix: '',
  format: true,
  indentBy: ' ',
  suppressEmptyNode: true,
  processEntities: true,
});

/** The text of a document with its declaration and document type; characters that XML cannot hold are left out. Linear. */
export function writeXml(root: XmlElement, doctype = ''): string {
  return `<?xml version="1.0" encoding="UTF-8"?>\n${doctype}${builder.build([ordered(root)]).trimStart()}\n`;
}

function ordered({ name, attributes, children }: XmlElement): Ordered {
  const attribute = Object.entries(attributes).map(([key, value]) => [key, sayable(value)] as const);
  return {
    [name]: children.map((child) => (typeof child === 'string' ? { '#text': sayable(child) } : ordered(child))),
    ...(attribute.length > 0 && { ':@': Object.fromEntries(attribute) }),
  };
}

/** What is wrong with a foreign file, and where. */
export interface FileProblem {
  /** In words, “Bar 3: the note lasts longer than its bar.” */
  readonly message: string;
  /** Where, in words: “line 12”, “bar 3 of Guitar”; empty for the file as a whole. */
  readonly place: string;
}

/** Deepest nesting that is read. Our choice: MusicXML needs ten. */
const MAX_DEPTH = 64;

const parser = new XMLParser({
  preserveOrder: true,
  ignoreAttributes: false,
  attributeNamePrefix: '',
  parseTagValue: false,
  parseAttributeValue: false,
  trimValues: true,
  processEntities: true,
  htmlEntities: false,
  ignoreDeclaration: true,
  ignorePiTags: true,
  // Paths of elements are not asked for; written out for each of them they take long.
  jPath: false,
});

/**
 * Reads a document; no entity but the five of XML and character references is resolved, and a document type with definitions of its
 * own is refused. The root, or what is wrong.
 */
export function readXml(text: string): XmlElement | FileProblem {
  const doctype = /<!DOCTYPE[^>[]*(\[)?/i.exec(text.slice(0, 100_000));
  if (doctype?.[1])
    return { place: placeOf(text, doctype.index), message: 'The file defines entities of its own; it is not read.' };
  const plain = doctype ? text.slice(0, doctype.index) + text.slice(text.indexOf('>', doctype.index) + 1) : text;
  if (/<!(?:DOCTYPE|ENTITY)/i.test(plain))
    return {
      place: placeOf(plain, plain.search(/<!(?:DOCTYPE|ENTITY)/i)),
      message: 'The file defines entities of its own; it is not read.',
    };
  const trouble = unbalanced(plain);
  if (trouble) return trouble;
  let nodes: unknown;
  try {
    nodes = parser.parse(plain);
  } catch (error) {
    return {
      place: '',
      message: `This is no XML that can be read: ${error instanceof Error ? error.message : 'unknown trouble'}`,
    };
  }
  const roots = Array.isArray(nodes) ? nodes.flatMap((node: unknown) => elementOf(node) ?? []) : [];
  const root = roots.find((one) => typeof one !== 'string');
  return root && typeof root !== 'string' ? root : { place: '', message: 'There is no element in this file.' };
}

/** Whether what came back is a document, not trouble. */
export function isElement(read: XmlElement | FileProblem): read is XmlElement {
  return 'children' in read;
}

const TAG =
  /<!--[\s\S]*?-->|<!\[CDATA\[[\s\S]*?\]\]>|<\?[\s\S]*?\?>|<(\/?)([^\s/>!?][^\s/>]*)((?:"[^"]*"|'[^']*'|[^>"'])*?)(\/?)>/g;

/** Tags that do not pair, which the parser lets pass; and nests too deep. */
function unbalanced(text: string): FileProblem | undefined {
  const open: string[] = [];
  let roots = 0;
  for (const match of text.matchAll(TAG)) {
    const [, closes, name, , isEmpty] = match;
    if (name === undefined) continue;
    if (closes) {
      const last = open.pop();
      if (last !== name)
        return {
          place: placeOf(text, match.index),
          message: `“</${name}>” closes what ${last ? `“<${last}>” opened` : 'nothing opened'}.`,
        };
    } else {
      if (open.length === 0) roots += 1;
      if (!isEmpty) open.push(name);
    }
    if (open.length > MAX_DEPTH) return { place: placeOf(text, match.index), message: 'Elements are nested too deep.' };
  }
  const last = open.at(-1);
  if (last !== undefined)
    return {
      place: placeOf(text, text.length),
      message: `The file ends before “<${last}>” is closed; it may have been cut off.`,
    };
  if (roots !== 1)
    return {
      place: '',
      message: roots === 0 ? 'There is no element in this file.' : 'The file holds several documents.',
    };
  return undefined;
}

/** The place in a text in words, lines from 1. */
export function placeOf(text: string, at: number): string {
  return `line ${text.slice(0, at).split('\n').length}`;
}

function elementOf(node: unknown): XmlElement | string | undefined {
  if (typeof node !== 'object' || node === null) return undefined;
  const parsed = node as ParsedNode;
  for (const name in parsed) {
    if (name === ':@') continue;
    const inside = parsed[name];
    if (name === '#text') return String(inside);
    const children: (XmlElement | string)[] = [];
    for (const child of Array.isArray(inside) ? (inside as readonly unknown[]) : []) {
      const one = elementOf(child);
      if (one !== undefined) children.push(one);
    }
    return { name, attributes: parsed[':@'] ?? NO_ATTRIBUTES, children };
  }
  return undefined;
}

/** What the package makes of an element: its name with what is inside, and its attributes, whose values stay text. */
type ParsedNode = Readonly<Record<string, unknown>> & { readonly ':@'?: Readonly<Record<string, string>> };
const NO_ATTRIBUTES: Readonly<Record<string, string>> = {};

/** The first child of a name; undefined where there is none. */
export function childOf(parent: XmlElement | undefined, name: string): XmlElement | undefined {
  return parent?.children.find((child): child is XmlElement => typeof child !== 'string' && child.name === name);
}

/** All children that are elements, of one name or of any. */
export function childrenOf(parent: XmlElement | undefined, name?: string): readonly XmlElement[] {
  return (parent?.children ?? []).filter(
    (child): child is XmlElement => typeof child !== 'string' && (name === undefined || child.name === name),
  );
}

/** The text inside an element, or inside its first child of a name; empty where there is none. */
export function textOf(parent: XmlElement | undefined, name?: string): string {
  const one = name === undefined ? parent : childOf(parent, name);
  return (one?.children ?? [])
    .filter((child) => typeof child === 'string')
    .join('')
    .trim();
}

/** The number inside a child; undefined where there is none, or no number. */
export function numberOf(parent: XmlElement | undefined, name: string): number | undefined {
  const text = textOf(parent, name);
  const number = Number(text);
  return text === '' || !Number.isFinite(number) ? undefined : number;
}
