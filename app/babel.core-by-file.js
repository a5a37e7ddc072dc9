const { readFileSync } = require("node:fs");
const { dirname, join, relative, sep } = require("node:path");

const CORE = join(__dirname, "..", "core", "src");

/** Maps each exported name of core to its file, through nested indexes. */
function filesByName(index = join(CORE, "index.ts"), files = new Map()) {
  for (const [, path] of readFileSync(index, "utf8").matchAll(/^export \* from "\.\/(.+)";$/gm)) {
    const file = join(dirname(index), `${path}.ts`);
    if (path.endsWith("/index")) {
      filesByName(file, files);
      continue;
    }
    const text = readFileSync(file, "utf8");
    for (const [, name] of text.matchAll(
      /^export (?:async |abstract |declare )*(?:function\*?|const|let|class|enum|interface|type) (\w+)/gm,
    ))
      files.set(name, file);
  }
  return files;
}

/**
 * Replaces imports from "@cravix/core" by imports from the defining file: the index would run all of core before the first page,
 * which needs a tenth of it. Names that cannot be resolved (namespaces, re-exports) keep the index.
 */
module.exports = ({ types: t }) => {
  const files = filesByName();
  return {
    name: "core-by-file",
    visitor: {
      ImportDeclaration(path, { filename }) {
        if (path.node.source.value !== "@cravix/core" || !filename) return;
        const taken = new Map();
        const left = [];
        for (const one of path.node.specifiers) {
          const name = t.isImportSpecifier(one) ? (one.imported.name ?? one.imported.value) : undefined;
          const file = name && files.get(name);
          if (file) taken.set(file, [...(taken.get(file) ?? []), one]);
          else left.push(one);
        }
        if (taken.size === 0) return;
        const from = (file) => {
          const short = relative(dirname(filename), file).split(sep).join("/");
          return t.stringLiteral(short.startsWith(".") ? short : `./${short}`);
        };
        const made = [...taken].map(([file, ones]) =>
          Object.assign(t.importDeclaration(ones, from(file)), { importKind: path.node.importKind }),
        );
        if (left.length > 0)
          made.push(
            Object.assign(t.importDeclaration(left, path.node.source), { importKind: path.node.importKind }),
          );
        path.replaceWithMultiple(made);
      },
    },
  };
};

module.exports.filesByName = filesByName;
