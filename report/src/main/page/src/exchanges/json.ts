// JSON as it was written: numbers keep all their digits, and of names that stand twice both are there. The browser's own
// reader makes 12345678901234567890 end in zeros, and two such numbers the same.
import { parseTree, type Node, type ParseError } from 'jsonc-parser';

/** Deeper than anybody unfolds; what lies below is shown as it came. */
const DEEPEST = 100;

export type Json =
  | { kind: 'leaf'; type: string; text: string }
  | { kind: 'list'; items: Json[]; text: string }
  | { kind: 'object'; fields: [name: string, value: Json][]; text: string };

/** Undefined where `text` is no JSON. */
export function jsonOf(text: string): Json | undefined {
  const errors: ParseError[] = [];
  try {
    const root = parseTree(text, errors, { disallowComments: true, allowTrailingComma: false, allowEmptyContent: false });
    return root && errors.length === 0 ? read(root, text, 0) : undefined;
  } catch {
    return undefined; // so deep that no reader of the browser's takes it
  }
}

function read(node: Node, text: string, depth: number): Json {
  const own = text.slice(node.offset, node.offset + node.length);
  if (depth >= DEEPEST) return { kind: 'leaf', type: 'deep', text: own };
  if (node.type === 'array') return { kind: 'list', items: (node.children ?? []).map((one) => read(one, text, depth + 1)), text: own };
  if (node.type === 'object') {
    const fields = (node.children ?? []).map(({ children: [name, value] = [] }): [string, Json] => [
      String(name?.value),
      value ? read(value, text, depth + 1) : { kind: 'leaf', type: 'null', text: '' },
    ]);
    return { kind: 'object', fields, text: own };
  }
  return { kind: 'leaf', type: node.type, text: node.type === 'string' ? JSON.stringify(node.value) : own };
}
