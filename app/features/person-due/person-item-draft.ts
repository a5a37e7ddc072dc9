import { isLocalDate } from "@cravix/core/airworthiness/calendar/local-date";
import type { AircraftClass, PersonDue } from "@cravix/core/airworthiness/people/person-due";
import type { Entry, FormFault } from "../../ui/form/form-faults";
import { type MinimaDraft, minimaFaults, minimaOfDraft, NO_MINIMA } from "./minima-draft";
import type { Preset } from "./presets";

/** A due item of a person as it is being entered. */
export interface PersonItemDraft extends MinimaDraft {
  /** Name of the preset. */
  preset: string;
  /** Valid until. */
  date: string;
  born: string;
  examined: string;
  called: string;
  of: AircraftClass;
  aircraft: string[];
}

export const NO_ITEM: PersonItemDraft = {
  preset: "",
  date: "",
  born: "",
  examined: "",
  called: "",
  of: "single-engine",
  aircraft: [],
  ...NO_MINIMA,
};

/** A licence or rating is named by the person. */
export const isNamed = (preset: Pick<Preset, "name">): boolean => preset.name === "Licence or rating";

/** The due item made from a draft, or what is missing or wrong. */
export function personItemOf(draft: PersonItemDraft, preset: Preset, today: string): Entry<PersonDue> {
  const faults = [
    ...datesFaults(draft, preset, today),
    ...(isNamed(preset) && draft.called.trim() === "" ? [{ at: "called", words: "Enter its name." }] : []),
    ...(preset.aircraft && draft.aircraft.length === 0
      ? [{ at: "aircraft", words: "Choose at least one aircraft." }]
      : []),
    ...(preset.minima ? minimaFaults(draft, preset.minima === "must") : []),
  ];
  if (faults.length > 0) return { faults };
  const minima = preset.minima && minimaOfDraft(draft);
  return {
    data: preset.make({
      date: draft.date,
      class: draft.of,
      aircraft: draft.aircraft,
      name: draft.called.trim(),
      born: draft.born,
      ...(minima && { minima }),
    }),
  };
}

function datesFaults({ date, born, examined }: PersonItemDraft, preset: Preset, today: string): FormFault[] {
  const faults: FormFault[] = [];
  if (preset.dated && !isLocalDate(date))
    faults.push({ at: "date", words: "Enter the date that is printed." });
  if (!preset.examined) return faults;
  if (!isLocalDate(born) || born > today) faults.push({ at: "born", words: "Enter the date of birth." });
  if (!isLocalDate(examined) || examined > today)
    faults.push({ at: "examined", words: "Enter the date of the examination." });
  else if (examined <= born)
    faults.push({ at: "examined", words: "This is before the birth. Check both dates." });
  return faults;
}
