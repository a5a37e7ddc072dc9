import { AIR_RULES } from "./air-rules";
import { CLOUD_RULES } from "./cloud-rules";
import type { Draft, GroupRule, ReadGroup } from "./group-rule";
import { OTHER_RULES } from "./other-rules";
import { phrasesOf } from "./phrases";
import { RUNWAY_RULES } from "./runway-rules";
import { VISIBILITY_RULES } from "./visibility-rules";
import { WEATHER_RULES } from "./weather-rules";
import { WIND_RULES } from "./wind-rules";

/** All groups, in the order in which their shapes are tried. */
export const GROUP_RULES: readonly GroupRule[] = [
  ...WIND_RULES,
  ...VISIBILITY_RULES,
  ...CLOUD_RULES,
  ...AIR_RULES,
  ...RUNWAY_RULES,
  ...OTHER_RULES,
  ...WEATHER_RULES,
];

/** Misspelt cloud: the sky is then not known to be free of it. */
const LIKE_CLOUD = /^(FEW|SCT|BKN|OVC|VV|SKC|CLR|NSC|NCD|CAV)/;

/**
 * Reads groups into a draft; each comes back with its meaning, or as doubted or not understood. Two different groups of a kind that
 * a report has once contradict each other, and neither is used. Complexity: O(groups · rules).
 */
export function readGroups(groups: readonly string[], draft: Draft): ReadGroup[] {
  const read: ReadGroup[] = [];
  const once = new Map<string, { text: string; at: number; rule: GroupRule }>();
  for (const text of phrasesOf(groups)) {
    const [rule, match] = ruleFor(text);
    if (!rule || !match) {
      read.push({ text, status: "not understood", words: "not understood" });
      if (LIKE_CLOUD.test(text)) draft.sky.cloudUnknown = true;
      continue;
    }
    const before = rule.forget && once.get(rule.name);
    if (before && before.text !== text) {
      before.rule.forget?.(draft);
      for (const at of [before.at, read.length])
        read[at] = { text: read[at]?.text ?? text, status: "doubted", words: "contradicts another group" };
      continue;
    }
    const meaning = rule.read(match, draft);
    if (rule.forget && !before) once.set(rule.name, { text, at: read.length, rule });
    read.push(
      typeof meaning === "string"
        ? { text, status: "understood", words: meaning }
        : "doubt" in meaning
          ? { text, status: "doubted", words: meaning.doubt }
          : { text, status: "not observed", words: meaning.notObserved },
    );
  }
  return read;
}

function ruleFor(text: string): [GroupRule, RegExpExecArray] | [] {
  for (const rule of GROUP_RULES) {
    const match = rule.shape.exec(text);
    if (match) return [rule, match];
  }
  return [];
}

/** Groups that a person must read: doubted or not understood. */
export const unreadOf = (groups: readonly ReadGroup[]): string[] => [
  ...new Set(
    groups
      .filter(({ status }) => status === "doubted" || status === "not understood")
      .map(({ text }) => text),
  ),
];
