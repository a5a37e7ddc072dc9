import type { Item } from "@cravix/core/aircraft/aircraft-type";
import type { ComposedList } from "@cravix/core/checklist/list/compose-list";
import { limitText } from "@cravix/core/judgement/judgement";
import { PHASE_NAME } from "./phase-name";

/** One line of a printed checklist. */
export interface PaperLine {
  step: string;
  station: string;
  title: string;
  /** Good condition, and the number expected. */
  good: string;
  why: string;
  /** Why it is included today, or empty. */
  today: string;
  caution: string;
}

export const CAUTION =
  "The pilot in command decides. The aircraft's handbook, local rules and licensed maintenance come first. Limits are example values.";

/** Today's checklist as lines, for paper and CSV. After-flight items come last. */
export function paperLines(list: ComposedList): PaperLine[] {
  const today = new Map<string, string[]>();
  for (const { itemId, why } of list.differences) today.set(itemId, [...(today.get(itemId) ?? []), why]);
  const stations = new Map(list.stations.map((station) => [station.id, station]));
  const after = new Set(list.after?.map(({ id }) => id));
  return [...list.items, ...(list.lineUp ?? []), ...(list.after ?? [])].map((item) => {
    const station = stations.get(item.station);
    const apart = after.has(item.id)
      ? ({ phase: "after", name: "After parking" } as const)
      : ({ phase: "line-up", name: "Line-up check" } as const);
    return {
      step: PHASE_NAME[station?.phase ?? apart.phase],
      station: station?.name ?? apart.name,
      title: item.title,
      good: [item.good, wanted(item)].filter(Boolean).join("; "),
      why: item.why,
      today: (today.get(item.id) ?? []).join(", "),
      caution: item.caution ?? "",
    };
  });
}

function wanted(item: Item): string {
  if (item.kind === "count") return `${item.expected} expected`;
  if (item.kind === "time") return `${item.seconds} s`;
  if (item.limit) return limitText(item.limit);
  return item.reading ? `in ${item.reading.unit}` : "";
}

export function paperTitle(list: ComposedList): string {
  return [list.registration, list.type.name, list.variant?.name].filter(Boolean).join(" · ");
}

/** Today's conditions on one line. */
export function paperDate(list: ComposedList): string {
  return list.conditions.length > 0 ? `Today: ${list.conditions.join(", ")}` : "Today: no special conditions";
}

/** Today's checklist as Markdown with check boxes. Markdown characters in texts are escaped. */
export function listMarkdown(list: ComposedList): string {
  const out = [`# ${words(paperTitle(list))}`, "", words(paperDate(list)), "", `> ${CAUTION}`];
  let step = "";
  let station = "";
  for (const line of paperLines(list)) {
    if (line.step !== step) out.push("", `## ${line.step}`);
    if (line.step !== step || line.station !== station) out.push("", `### ${words(line.station)}`, "");
    ({ step, station } = line);
    out.push(
      `- [ ] **${words(line.title)}**: ${words(line.good)}${line.today ? ` *(today: ${words(line.today)})*` : ""}`,
    );
    if (line.caution) out.push(`  - Caution: ${words(line.caution)}`);
  }
  return `${out.join("\n")}\n`;
}

const words = (text: string) => text.replace(/[\\`*_[\]<>#|]/g, (mark) => `\\${mark}`).replace(/\s+/g, " ");
