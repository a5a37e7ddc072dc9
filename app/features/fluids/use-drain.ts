import type { Item } from "@cravix/core/aircraft/aircraft-type";
import { type DrainAdvice, drainAdvice } from "@cravix/core/fuel/drain/drain-protocol";
import type { Sample } from "@cravix/core/fuel/drain/fuel-sample";
import { approvedGrades } from "@cravix/core/verdict/judges/fuel-input";
import { aroundRocking } from "@cravix/core/verdict/judges/judge-drains";
import { useState } from "react";
import { useShortcuts } from "../../ui/input/use-shortcuts";
import type { Acts, LoadedPreflight } from "../open-preflight";

interface Asking {
  itemId: string;
  /** Further question after the appearance: colour, or paper test. */
  more?: "colour" | "paper" | undefined;
  /** Start of the current draining. */
  since?: number | undefined;
}

/** Next step at this drain, and the possible answers. */
export function useDrain(
  preflight: LoadedPreflight,
  item: Item,
  acts: Acts,
  onFound: (preset?: string) => void,
  active: boolean,
) {
  const { list, state } = preflight;
  const approved = approvedGrades(list);
  const taken = state.samples[item.id] ?? [];
  const { before, since } = aroundRocking(taken, state.rocked?.at);
  const advice: DrainAdvice = drainAdvice(before, since, state.rocked !== undefined, approved);
  const [asking, setAsking] = useState<Asking>({ itemId: item.id });
  const now: Asking = asking.itemId === item.id ? asking : { itemId: item.id };
  const set = (part: Partial<Asking>) => setAsking({ ...now, ...part, itemId: item.id });
  const give = (sample: Sample) => {
    const seconds = now.since === undefined ? undefined : Math.round((Date.now() - now.since) / 1000);
    setAsking({ itemId: item.id });
    acts.sample(item, { ...sample, ...(seconds !== undefined && { seconds }) });
  };
  const look = (chosen: Sample["look"]) => {
    if (chosen === "wrong colour") set({ more: "colour" });
    else if (chosen === "colourless") set({ more: "paper" });
    else give({ look: chosen });
  };
  const writeUp = () => onFound(`${item.title}: ${advice.why}`);
  const drain = () => set({ since: Date.now() });
  const draining = now.since !== undefined;
  const primary =
    item.kind !== "sample" || now.more
      ? undefined
      : advice.step === "again" && !draining
        ? drain
        : advice.step === "rock"
          ? acts.rocked
          : advice.step === "maintenance"
            ? writeUp
            : advice.step === "clean"
              ? () => acts.checked(item, taken.at(-1)?.colour ?? taken.at(-1)?.look)
              : () => give({ look: "clean" });
  useShortcuts(item.kind === "sample" && active ? { Enter: primary } : {});
  return {
    advice,
    approved,
    taken,
    asking: now,
    draining,
    look,
    give,
    primary,
    back: () => set({ more: undefined }),
  };
}

export type Drain = ReturnType<typeof useDrain>;
