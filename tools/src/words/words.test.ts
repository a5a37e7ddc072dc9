import { bannedIn } from "./banned-words";
import { textsOfJson, textsOfMarkdown, textsOfSource } from "./find-texts";

test("a banned word is found in any case, with a better one; parts of words are left alone", () => {
  expect(bannedIn("Reckoned with 3 people aboard")).toEqual([
    { word: "Reckoned", better: "calculate" },
    { word: "aboard", better: "on board, or the load" },
  ]);
  expect(bannedIn("The clapped-out windsock collapsed at Overlap Field.")).toEqual([]);
});

test("texts of a source are what a person reads: JSX, sentences and templates, not ids, keys or class names", () => {
  const code = `
    import x from "a lap";
    type Kind = "own limits" | "medical";
    const KINDS = ["own limits"] as const;
    if (kind === "own limits") say({ kind: "own limits", text: "Your own limits" });
    const label = \`Trouble with \${x}\`;
    const view = <View className="a lap" aria-label="Lap"><Text>One more lap</Text></View>;
  `;
  const found = textsOfSource("a.tsx", code).filter(({ text }) => bannedIn(text).length > 0);
  expect(found).toEqual([
    { line: 5, text: "Your own limits" },
    { line: 6, text: "Trouble with …" },
    { line: 7, text: "Lap" },
    { line: 7, text: "One more lap" },
  ]);
});

test("Markdown is read without code and link targets, JSON without keys", () => {
  expect(textsOfMarkdown("A `lap` in [code](lap.md)\n```\nlap\n```\nA lap")).toEqual([
    { line: 1, text: "A  in [code]" },
    { line: 5, text: "A lap" },
  ]);
  expect(textsOfJson('{\n  "a lap": "lap",\n  "good": "One lap"\n}')).toEqual([{ line: 3, text: "One lap" }]);
});
