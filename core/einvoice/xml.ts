import { dayOf } from '../dates/index.ts';
import { SaxesParser } from 'saxes';

/** An element with its local name and namespace; text is that of its own, trimmed. */
export interface Element {
  name: string;
  ns: string;
  attributes: Record<string, string>;
  children: Element[];
  text: string;
}

/** What an XML file may be at most: bytes, elements, depth. Attachments inside count by the bytes. */
export interface XmlLimits {
  bytes: number;
  elements: number;
  depth: number;
}
export const xmlLimits: XmlLimits = { bytes: 40 * 1024 * 1024, elements: 300_000, depth: 40 };

/** Why a file is no XML that can be read; the message is for people. */
export class UnreadableXml extends Error {}

/**
 * Parses XML that may be hostile: a document type, an entity of its own or an outside reference is refused, size, number of
 * elements and depth are bounded. Throws UnreadableXml.
 */
export function parseXml(bytes: Uint8Array, limits: XmlLimits = xmlLimits): Element {
  if (bytes.length > limits.bytes) throw new UnreadableXml('This XML file is too large.');
  const parser = new SaxesParser({ xmlns: true, position: false });
  const open: Element[] = [];
  let root: Element | null = null,
    count = 0;
  const refuse = (why: string): never => {
    throw new UnreadableXml(why);
  };
  parser.on('doctype', () => refuse('This XML file brings a document type of its own, which e-invoices never do. It was not opened.'));
  parser.on('error', () => refuse('This XML file is damaged and cannot be read. Ask the supplier to send it again.'));
  parser.on('opentag', (tag) => {
    if (++count > limits.elements || open.length >= limits.depth) refuse('This XML file is too large or too deep to be an invoice.');
    const element: Element = {
      name: tag.local,
      ns: tag.uri,
      attributes: Object.fromEntries(Object.values(tag.attributes).map((a) => [a.local, a.value])),
      children: [],
      text: '',
    };
    open[open.length - 1]?.children.push(element);
    root ??= element;
    open.push(element);
  });
  parser.on('text', (text) => {
    const at = open[open.length - 1];
    if (at) at.text += text;
  });
  parser.on('cdata', (text) => {
    const at = open[open.length - 1];
    if (at) at.text += text;
  });
  parser.on('closetag', () => {
    const closed = open.pop();
    if (closed) closed.text = closed.text.trim();
  });
  parser.write(decode(bytes)).close();
  return root ?? refuse('This XML file is empty.');
}

/** Text of a file in UTF-8 or UTF-16, or in Latin-1 where the declaration says so. */
function decode(bytes: Uint8Array): string {
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 200));
  const declared = /encoding=["']([\w-]+)["']/.exec(head)?.[1]?.toLowerCase();
  const marked = bytes[0] === 0xff && bytes[1] === 0xfe ? 'utf-16le' : bytes[0] === 0xfe && bytes[1] === 0xff ? 'utf-16be' : null;
  const name = marked ?? (declared && ['iso-8859-1', 'latin1', 'windows-1252', 'iso-8859-15'].includes(declared) ? declared : 'utf-8');
  return new TextDecoder(name).decode(bytes);
}

/** The first element at a path of local names below another, or null. */
export function at(element: Element | null, ...path: string[]): Element | null {
  let here: Element | null = element;
  for (const name of path) here = here?.children.find((c) => c.name === name) ?? null;
  return here;
}

/** All children of a name. */
export const all = (element: Element | null, name: string): Element[] => element?.children.filter((c) => c.name === name) ?? [];

/** Text at a path, null where it is missing or empty. */
export const textAt = (element: Element | null, ...path: string[]): string | null => at(element, ...path)?.text || null;

/** A day of the calendar with or without its zone (XML Schema part 2, 3.2.9), or eight digits (format 102); null for anything else. */
export function dayOfText(text: string | null): string | null {
  const [, year, month, day] = /^(\d{4})-?(\d{2})-?(\d{2})(?:Z|[+-]\d{2}:\d{2}|T.*)?$/.exec(text ?? '') ?? [];
  return year ? dayOf(Number(year), Number(month), Number(day)) : null;
}
