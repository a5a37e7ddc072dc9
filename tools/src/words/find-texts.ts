import ts from "typescript";

/** A text for people, with its line, counted from 1. */
export interface FoundText {
  line: number;
  text: string;
}

const lineOf = (source: ts.SourceFile, node: ts.Node) =>
  source.getLineAndCharacterOfPosition(node.getStart(source)).line + 1;

/** True for literals that are ids: in types, imports, comparisons, keys, class names and fixed lists of values. */
function isId(node: ts.Node): boolean {
  const { parent } = node;
  if (ts.isLiteralTypeNode(parent) || ts.isImportDeclaration(parent) || ts.isExportDeclaration(parent))
    return true;
  if (ts.isCaseClause(parent) || ts.isElementAccessExpression(parent)) return true;
  if (ts.isPropertyAssignment(parent) && parent.name === node) return true;
  if (ts.isBinaryExpression(parent)) {
    const { kind } = parent.operatorToken;
    return (
      kind === ts.SyntaxKind.EqualsEqualsEqualsToken || kind === ts.SyntaxKind.ExclamationEqualsEqualsToken
    );
  }
  return ts.isArrayLiteralExpression(parent) && ts.isAsExpression(parent.parent);
}

/** Fields that hold ids with spaces, such as `kind: "own limits"`. */
const ID_FIELDS: ReadonlySet<string> = new Set(["kind", "for", "purpose", "by", "way", "trouble"]);

function isIdField({ parent }: ts.Node): boolean {
  return ts.isPropertyAssignment(parent) && ts.isIdentifier(parent.name) && ID_FIELDS.has(parent.name.text);
}

/** Texts of a TypeScript source: literals with a blank, or with a capital first letter, and JSX text. */
export function textsOfSource(name: string, code: string): FoundText[] {
  const kind = name.endsWith("x") ? ts.ScriptKind.TSX : ts.ScriptKind.TS;
  const source = ts.createSourceFile(name, code, ts.ScriptTarget.Latest, true, kind);
  const found: FoundText[] = [];
  const add = (node: ts.Node, text: string) => found.push({ line: lineOf(source, node), text });
  const visit = (node: ts.Node): void => {
    if (ts.isJsxAttribute(node) && /^(className|textClassName|testID)$/.test(node.name.getText(source)))
      return;
    if (ts.isJsxText(node)) add(node, node.text.replace(/\s+/g, " ").trim());
    else if (ts.isTemplateExpression(node))
      add(node, [node.head.text, ...node.templateSpans.map((span) => span.literal.text)].join("…"));
    else if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) {
      const isText = /\s/.test(node.text) || /^[A-Z][a-z]/.test(node.text);
      if (isText && !isId(node) && !isIdField(node)) add(node, node.text);
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

/** Lines of a Markdown file without code. */
export function textsOfMarkdown(content: string): FoundText[] {
  let fenced = false;
  return content.split("\n").flatMap((raw, i) => {
    const fence = raw.startsWith("```");
    if (fence) fenced = !fenced;
    const text = raw.replace(/`[^`]*`/g, "").replace(/\]\([^)]*\)/g, "]");
    return fence || fenced || text.trim() === "" ? [] : [{ line: i + 1, text }];
  });
}

/** All strings with a blank in a JSON file; `line` counts from 1. */
export function textsOfJson(content: string): FoundText[] {
  return content
    .split("\n")
    .flatMap((raw, i) =>
      [...raw.matchAll(/"((?:[^"\\]|\\.)*)"(\s*:)?/g)]
        .flatMap(([, text = "", colon]) => (colon === undefined && /\s/.test(text) ? [text] : []))
        .map((text) => ({ line: i + 1, text })),
    );
}
