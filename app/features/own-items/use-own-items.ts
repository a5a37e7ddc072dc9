import { newId } from "@cravix/contract/client";
import type { OwnItem } from "@cravix/core/aircraft/aircraft-type";
import { useEffect, useState } from "react";
import { notSaved } from "../../store/server/not-saved";
import { useSendFileMutation } from "../../store/server/records-api";
import { refresh } from "../../store/server/server-state";
import { useAppDispatch } from "../../store/state/hooks";
import { useWatch } from "../../ui/form/form-library";
import { useDataForm } from "../../ui/form/use-entry-form";
import type { KnownAircraft } from "../aircraft-frame";
import { isChanged, ownDifference } from "./difference";
import { basisOf, fileOf, newItem, type OwnItemsDraft, savedItems } from "./own-items-draft";

/** Form of an aircraft's added items. It survives a reload and is recorded only when saved. */
export function useOwnItems({ bundle }: KnownAircraft) {
  const { aircraft, type } = bundle;
  const dispatch = useAppDispatch();
  const [sendFile] = useSendFileMutation();
  const [editing, setEditing] = useState<string>();
  const [message, setMessage] = useState("");
  const form = useDataForm<OwnItemsDraft, { text: string }>({
    first: { items: aircraft.ownItems, basis: "" },
    keep: `own items draft:${aircraft.registration}`,
    read: (draft) => fileOf(aircraft, draft),
    onEntered: async ({ text }) => {
      const basis = form.getValues("basis") || basisOf(aircraft);
      const { error } = await sendFile({ text, basis });
      if (error) {
        setMessage(notSaved(error));
        return false;
      }
      await refresh(dispatch, aircraft.registration);
      setEditing(undefined);
      setMessage("Saved. New preflights include it; preflights already started keep their checklist.");
      return true;
    },
    onFaults: (errors) => {
      const row = Object.keys(errors.items ?? {})[0];
      if (row !== undefined) setEditing(getValues("items")[Number(row)]?.id);
    },
  });
  const { control, formState, getValues, setValue, clearErrors } = form;
  const items = useWatch({ control, name: "items" }) as OwnItem[];
  const difference = ownDifference(type, aircraft.ownItems, savedItems(aircraft.ownItems, items));
  const changed = isChanged(difference);
  useEffect(() => {
    if (changed && getValues("basis") === "") setValue("basis", basisOf(aircraft));
  }, [changed, aircraft, getValues, setValue]);
  const write = (step: (before: OwnItem[]) => OwnItem[]) => {
    setValue("items", step(getValues("items")));
    clearErrors();
    setMessage("");
  };
  const change = (id: string, step: (item: OwnItem) => OwnItem) =>
    write((before) => before.map((item) => (item.id === id ? step(item) : item)));
  return {
    control,
    /** False while a stored draft is being read. */
    ready: form.ready,
    items,
    editing,
    message: message || (formState.isSubmitted && form.fault ? "Not saved: fill in the marked fields." : ""),
    difference,
    edit: setEditing,
    add: () => {
      const id = `own.${newId(Date.now()).slice(-12)}`;
      const station = type.stations.find((s) => s.phase === "lap") ?? type.stations[0];
      write((before) => [...before, newItem(id, station?.id ?? "")]);
      setEditing(id);
    },
    /** A new item is deleted; a recorded one stays in the file with its retirement date. */
    retire: (id: string, today: string) => {
      if (aircraft.ownItems.some((item) => item.id === id))
        change(id, (item) => ({ ...item, retired: today }));
      else write((before) => before.filter((item) => item.id !== id));
      setEditing(undefined);
    },
    bringBack: (id: string) => change(id, ({ retired: _retired, ...item }) => item),
    drop: () => {
      form.startAgain();
      setEditing(undefined);
      setMessage("");
    },
    save: () => {
      setMessage("");
      form.submit();
    },
  };
}
