import { spokenDate } from "@cravix/core/airworthiness/calendar/local-date";
import { type ClosedPeriod, planFaults } from "@cravix/core/airworthiness/plan/workshop-plan";
import { useState } from "react";
import { View } from "react-native";
import { FormDate, FormText } from "../../ui/form/form-fields";
import { useWatch } from "../../ui/form/form-library";
import { useDataForm } from "../../ui/form/use-entry-form";
import { useFilled } from "../../ui/form/use-filled";
import { withFormLibrary } from "../../ui/form/with-form-library";
import { Button } from "../../ui/input/button";
import { Heading, Text } from "../../ui/text";
import type { Visits } from "./use-visits";

/** Days the workshop is closed besides weekends. */
export function ClosedDays({ plan: { closed, setClosed } }: { plan: Visits }) {
  const [open, setOpen] = useState(false);
  const add = (one: ClosedPeriod) => {
    setClosed([...closed, one].sort((a, b) => a.from.localeCompare(b.from)));
    setOpen(false);
  };
  return (
    <View className="gap-2" testID="closed-days">
      <Heading className="text-lg">Workshop closed</Heading>
      <Text className="text-sm text-voice">Weekends, and:</Text>
      {closed.map((span, i) => (
        <View
          key={`${span.from}${span.to}${span.why ?? ""}`}
          className="flex-row items-center justify-between gap-3 rounded-xl bg-stone px-3 py-1"
        >
          <Text className="shrink">
            {`${spokenDate(span.from)} to ${spokenDate(span.to)}${span.why ? `: ${span.why}` : ""}`}
          </Text>
          <Button
            className="px-4"
            textClassName="text-sm"
            label={`Remove closure from ${span.from}`}
            onPress={() => setClosed(closed.filter((_, n) => n !== i))}
          >
            Remove
          </Button>
        </View>
      ))}
      {open ? (
        <ClosedForm onAdd={add} />
      ) : (
        <Button
          className="self-start px-5"
          textClassName="text-base"
          testID="add-closed"
          onPress={() => setOpen(true)}
        >
          Add closed days
        </Button>
      )}
    </View>
  );
}

const ClosedForm = withFormLibrary(ClosedFormLoaded);

function ClosedFormLoaded({ onAdd }: { onAdd: (span: ClosedPeriod) => void }) {
  const { control, submit } = useDataForm<{ from: string; to: string; why: string }, ClosedPeriod>({
    first: { from: "", to: "", why: "" },
    keep: "closed days draft",
    read: ({ from, to, why }) => {
      const span = { from, to: to || from, ...(why.trim() && { why: why.trim() }) };
      const [fault] = planFaults({ closed: [span], visits: [] });
      return fault ? { faults: [{ at: "from", words: `Expected ${fault.expected}.` }] } : { data: span };
    },
    onEntered: onAdd,
  });
  const from = useWatch({ control, name: "from" });
  const filled = useFilled(control, ["from"]);
  return (
    <View className="max-w-xl gap-2">
      <FormDate control={control} name="from" label="From" />
      <FormDate control={control} name="to" label="To (empty: the same day)" min={from} />
      <FormText control={control} name="why" label="Why" maxLength={80} placeholder="holidays …" />
      <Button
        tone="primary"
        className="self-start px-5"
        disabled={!filled}
        testID="save-closed"
        onPress={submit}
      >
        Save
      </Button>
    </View>
  );
}
