import { newId } from "@cravix/contract/client";
import { contentHash } from "@cravix/contract/content-hash";
import type { FileFault } from "@cravix/contract/files";
import type { Aircraft, Item, OwnItem } from "@cravix/core/aircraft/aircraft-type";
import { useState } from "react";
import { usePersistedState } from "../../device/log/use-persisted-state";
import { useSendFileMutation } from "../../store/server/records-api";
import { refresh } from "../../store/server/server-state";
import { applyPatch, type Change } from "../../store/state/apply-patch";
import { useAppDispatch } from "../../store/state/hooks";
import type { KnownAircraft } from "../aircraft-frame";
import { ownDifference } from "./difference";

interface Draft {
  items: OwnItem[];
  /** Version the draft is based on, so that another change is not overwritten. */
  basis: string;
}

/** Draft of an aircraft's added items. It survives a reload and is recorded only when saved. */
export function useOwnItems({ bundle }: KnownAircraft) {
  const { aircraft, type } = bundle;
  const dispatch = useAppDispatch();
  const kept = usePersistedState<Draft | null>(`own items draft:${aircraft.registration}`, null);
  const [sendFile] = useSendFileMutation();
  const [editing, setEditing] = useState<string>();
  const [faults, setFaults] = useState<FileFault[]>([]);
  const [message, setMessage] = useState("");
  const items = kept.value?.items ?? aircraft.ownItems;
  const write = (step: (before: OwnItem[]) => OwnItem[]) => {
    kept.change((before) => ({
      items: step(before?.items ?? aircraft.ownItems),
      basis: before?.basis ?? contentHash(aircraft),
    }));
    setFaults([]);
    setMessage("");
  };
  const drop = () => {
    kept.change(() => null);
    kept.drop();
    setEditing(undefined);
    setFaults([]);
  };
  const file: Aircraft = { ...aircraft, ownItems: items };
  return {
    items,
    editing: items.find((item) => item.id === editing),
    faults,
    message,
    difference: ownDifference(type, aircraft.ownItems, items),
    edit: setEditing,
    add: () => {
      const id = `own.${newId(Date.now()).slice(-12)}`;
      const station = type.stations.find((s) => s.phase === "lap") ?? type.stations[0];
      write((before) => [
        ...before,
        { id, station: station?.id ?? "", kind: "look", title: "", good: "", why: "", miss: "ask" },
      ]);
      setEditing(id);
    },
    change: (id: string, part: Change<Item>) =>
      write((before) => before.map((item) => (item.id === id ? applyPatch(item, part) : item))),
    /** A new item is deleted; a recorded one stays in the file with its retirement date. */
    retire: (id: string, today: string) => {
      const known = aircraft.ownItems.some((item) => item.id === id);
      write((before) =>
        known
          ? before.map((item) => (item.id === id ? { ...item, retired: today } : item))
          : before.filter((item) => item.id !== id),
      );
      setEditing(undefined);
    },
    bringBack: (id: string) =>
      write((before) =>
        before.map((item) => {
          if (item.id !== id) return item;
          const { retired: _retired, ...rest } = item;
          return rest;
        }),
      ),
    drop,
    save: async (): Promise<boolean> => {
      const text = JSON.stringify(file);
      const { readFileText } = await import("@cravix/contract/schemas");
      const reading = readFileText(text);
      if ("faults" in reading) {
        setFaults(reading.faults);
        const index = Number(/^ownItems\[(\d+)\]/.exec(reading.faults[0]?.path ?? "")?.[1]);
        setEditing(items[index]?.id);
        setMessage("Not saved: fill in the marked fields.");
        return false;
      }
      const basis = kept.value?.basis;
      const { error } = await sendFile({ text, ...(basis !== undefined && { basis }) });
      if (error) {
        setMessage(
          "reached" in error && error.reached
            ? error.message
            : "The server cannot be reached. Your entry is saved on this device: save it again when you are online.",
        );
        return false;
      }
      drop();
      await refresh(dispatch, aircraft.registration);
      setMessage("Saved. New preflights include it; preflights already started keep their checklist.");
      return true;
    },
  };
}
