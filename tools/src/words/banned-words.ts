/** A word that readers stumble over, and what to write instead. */
export interface BannedWord {
  pattern: RegExp;
  better: string;
}

const banned = (words: string, better: string): BannedWord => ({
  pattern: new RegExp(`\\b(?:${words})\\b`, "i"),
  better,
});

/** Words that must not appear in texts. Reasons and terms: docs/words.md. */
export const BANNED_WORDS: readonly BannedWord[] = [
  banned("reckon(?:s|ed|ing)?", "calculate"),
  banned("no reason against", "no problems found"),
  banned("own limits", "personal minimums"),
  banned("aboard", "on board, or the load"),
  banned("wind from behind", "tailwind"),
  banned("(?<!\\.)socks?", "windsock"),
  banned("engineers?", "mechanic"),
  banned("stand-ins?", "simulated"),
  banned("planted", "simulated"),
  banned("troubles?", "fault, problem or reason"),
  banned("laps?(?! (?:strap|belt)s?)", "walkaround or route"),
  banned("(?:a|the|this|that|each|every|last|next) walks?", "preflight or walkaround"),
  banned("put (?:down|away)", "save, enter, secure"),
  banned("written down", "entered, logged or saved"),
  banned("speaks? (?:for|against)", "is evidence for, or against"),
  banned("holds? to", "valid until"),
  banned("by night", "at night"),
  banned("go(?:es|ne)? on with", "continue"),
  banned("anew", "again"),
  banned("kept on this device", "saved on this device"),
  banned("witness(?:es)?", "source"),
  banned("not judged", "not assessed"),
  banned("place of the work", "workshop"),
  banned("(?:laid|lay|lies|lie) (?:beside|against)", "compare with"),
  banned("greatest(?!\\()", "maximum"),
  banned("stands? (?:nowhere|twice)", "is missing, or appears twice"),
  banned("what is said of", "a plain sentence"),
  banned("ought", "should"),
  banned("thereby|therein|thereof|whereof|hitherto|heretofore", "a plain sentence"),
];

/** Banned words in a text, in the order of the list. */
export const bannedIn = (text: string): { word: string; better: string }[] =>
  BANNED_WORDS.flatMap(({ pattern, better }) => {
    const word = pattern.exec(text)?.[0];
    return word ? [{ word, better }] : [];
  });
