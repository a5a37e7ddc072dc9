import { contentHash } from "@cravix/contract/content-hash";
import type { LoadingProfile } from "@cravix/core/mass-and-balance/loading-profile";
import { weighingChange } from "@cravix/core/mass-and-balance/same-datum";
import { useState } from "react";
import { api, ProblemError } from "../../device/api";
import { usePersistedState } from "../../device/log/use-persisted-state";
import { refresh } from "../../store/server/server-state";
import { useAppDispatch } from "../../store/state/hooks";

/** Text as entered. */
export interface WeighingDraft {
  date: string;
  kg: string;
  mm: string;
  text: string;
}

const NOTHING: WeighingDraft = { date: "", kg: "", mm: "", text: "" };
const number = (text: string) => (text.trim() === "" ? Number.NaN : Number(text.trim().replace(",", ".")));

/** Weighing from a draft; undefined while incomplete. The file's validation checks numbers and date. */
export function weighingOf({ date, kg, mm, text }: WeighingDraft): LoadingProfile["weighing"] | undefined {
  const [emptyKg, armMm] = [number(kg), number(mm)];
  if (!date.trim() || !text.trim() || !Number.isFinite(emptyKg) || !Number.isFinite(armMm)) return undefined;
  return {
    date: date.trim(),
    emptyKg,
    armMm,
    source: { kind: "handbook", text: text.trim(), example: false },
  };
}

/** A draft of a weighing report. It survives a reload and is recorded only when saved. */
export function useWeighing(profile: LoadingProfile) {
  const dispatch = useAppDispatch();
  const {
    value: draft,
    change: write,
    drop,
  } = usePersistedState(`weighing draft:${profile.registration}`, NOTHING);
  const [message, setMessage] = useState("");
  const [faults, setFaults] = useState<{ path: string; expected: string }[]>([]);
  const weighing = weighingOf(draft);
  return {
    draft,
    faults,
    message,
    weighing,
    change: weighing && weighingChange(profile.weighing, weighing),
    write: (part: Partial<WeighingDraft>) => {
      write((before) => ({ ...before, ...part }));
      setFaults([]);
      setMessage("");
    },
    save: async (): Promise<boolean> => {
      if (!weighing) {
        setMessage("Not saved: fill in all four fields.");
        return false;
      }
      const text = JSON.stringify({ ...profile, weighing });
      const { readFileText } = await import("@cravix/contract/schemas");
      const reading = readFileText(text);
      if ("faults" in reading) {
        setFaults(reading.faults);
        setMessage("Not saved: correct the marked fields.");
        return false;
      }
      try {
        await api.sendFile(text, contentHash(profile));
      } catch (error) {
        setMessage(
          error instanceof ProblemError
            ? error.message
            : "The server cannot be reached. Your entry is saved on this device: save it again when you are online.",
        );
        return false;
      }
      write(() => NOTHING);
      drop();
      await refresh(dispatch, profile.registration);
      return true;
    },
  };
}
