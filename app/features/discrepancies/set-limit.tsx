import { typedNumber } from "@cravix/core/units/typed-number";
import { useState } from "react";
import { View } from "react-native";
import { recordOfAircraft } from "../../store/preflight/record";
import { useAppDispatch } from "../../store/state/hooks";
import { FormNumber, FormRootFault, FormText } from "../../ui/form/form-fields";
import { useEntryForm } from "../../ui/form/use-entry-form";
import { useFilled } from "../../ui/form/use-filled";
import { withFormLibrary } from "../../ui/form/with-form-library";
import { Button } from "../../ui/input/button";

/** Sets the limit of a measure, with permission. */
export function SetLimit({
  id,
  unit,
  known,
  onDone,
}: {
  id: string;
  /** Unit of the measures so far. */
  unit: string;
  known: boolean;
  onDone: () => void;
}) {
  const [open, setOpen] = useState(false);
  if (!open)
    return (
      <Button
        className="self-start px-5"
        textClassName="text-base"
        testID="set-limit"
        onPress={() => setOpen(true)}
      >
        {known ? "Change the limit" : "Set a limit"}
      </Button>
    );
  const done = () => {
    setOpen(false);
    onDone();
  };
  return <LimitForm id={id} unit={unit} onDone={done} />;
}

const LimitForm = withFormLibrary(LimitFormLoaded);

function LimitFormLoaded({ id, unit, onDone }: { id: string; unit: string; onDone: () => void }) {
  const dispatch = useAppDispatch();
  const { control, submit } = useEntryForm({
    type: "discrepancy.limited",
    first: { most: "", unit, source: "" },
    live: true,
    keep: `limit draft:${id}`,
    read: ({ most, unit: of, source }) => {
      const value = typedNumber(most);
      return Number.isFinite(value) && value >= 0
        ? { data: { discrepancyId: id, most: value, unit: of.trim(), source: source.trim() } }
        : { faults: [{ at: "most", words: "Enter a number of 0 or more." }] };
    },
    onEntered: (data) => {
      dispatch(recordOfAircraft("discrepancy.limited", data));
      onDone();
    },
  });
  const filled = useFilled(control, ["most", "source"]);
  return (
    <View className="max-w-xl gap-2">
      <FormNumber control={control} name="most" label="Limit" maxLength={10} />
      <FormText
        control={control}
        name="unit"
        label="Unit"
        maxLength={40}
        placeholder="mm, drops a minute …"
      />
      <FormText
        control={control}
        name="source"
        label="Source of the limit"
        maxLength={200}
        placeholder="maintenance manual, chapter …"
      />
      <FormRootFault control={control} />
      <Button tone="primary" disabled={!filled} testID="save-limit" onPress={submit}>
        Save the limit
      </Button>
    </View>
  );
}
