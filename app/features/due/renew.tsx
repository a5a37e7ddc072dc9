import { addDays } from "@cravix/core/airworthiness/calendar/local-date";
import type { DueItem } from "@cravix/core/airworthiness/due/due-item";
import { useState } from "react";
import { View } from "react-native";
import { recordOfAircraft } from "../../store/preflight/record";
import { useAppDispatch } from "../../store/state/hooks";
import { Button } from "../../ui/input/button";
import { DateField } from "../../ui/input/date-field";
import { TextField } from "../../ui/input/text-field";

/** Renews a document, a database or another printed date without work. */
export function Renew({ registration, item, today }: { registration: string; item: DueItem; today: string }) {
  const dispatch = useAppDispatch();
  const [open, setOpen] = useState(false);
  const [until, setUntil] = useState("");
  const [source, setSource] = useState("");
  if (!open)
    return (
      <Button
        className="self-start px-5"
        textClassName="text-base"
        testID="renew"
        onPress={() => setOpen(true)}
      >
        Renew
      </Button>
    );
  const save = () => {
    dispatch(
      recordOfAircraft("document.renewed", {
        registration,
        item: item.id,
        date: today,
        until,
        ...(source.trim() !== "" && { source: source.trim() }),
      }),
    );
    setOpen(false);
  };
  return (
    <View className="gap-2" testID="renewing">
      <DateField label="Valid until, as printed" value={until} min={addDays(today, 1)} onChange={setUntil} />
      <TextField
        label="Where it is printed"
        value={source}
        onChange={setSource}
        maxLength={200}
        placeholder="policy number, certificate, label"
      />
      <View className="flex-row flex-wrap gap-2">
        <Button
          tone="primary"
          className="px-6"
          disabled={until <= today}
          testID="save-renewal"
          onPress={save}
        >
          Save
        </Button>
        <Button tone="bare" textClassName="text-base" onPress={() => setOpen(false)}>
          Cancel
        </Button>
      </View>
    </View>
  );
}
