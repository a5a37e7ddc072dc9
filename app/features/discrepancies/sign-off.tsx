import type { DiscrepancyDetail } from "@cravix/contract/client";
import { useState } from "react";
import { View } from "react-native";
import { recordOfAircraft } from "../../store/preflight/record";
import { useCrew } from "../../store/server/server-state";
import { useAppDispatch, useAppSelector } from "../../store/state/hooks";
import { FormRootFault, FormText, FormToggle } from "../../ui/form/form-fields";
import { useEntryForm } from "../../ui/form/use-entry-form";
import { useFilled } from "../../ui/form/use-filled";
import { withFormLibrary } from "../../ui/form/with-form-library";
import { Button } from "../../ui/input/button";
import { Text } from "../../ui/text";

interface SignOffProps {
  discrepancy: DiscrepancyDetail;
  onSigned: () => void;
}

/** A mechanic signs a discrepancy off: repaired, or inspected without a fault. */
export function SignOff({ discrepancy, onSigned }: SignOffProps) {
  const crewId = useAppSelector((state) => state.session.crewId);
  const crew = useCrew();
  const [open, setOpen] = useState(false);
  if (crew.find((member) => member.id === crewId)?.role !== "mechanic")
    return <Text className="text-sm text-voice">Only a mechanic can sign this off.</Text>;
  if (!open)
    return (
      <Button className="self-start px-5" textClassName="text-base" onPress={() => setOpen(true)}>
        Sign off
      </Button>
    );
  const signed = () => {
    setOpen(false);
    onSigned();
  };
  return <SignOffForm discrepancy={discrepancy} onSigned={signed} />;
}

const SignOffForm = withFormLibrary(SignOffFormLoaded);

function SignOffFormLoaded({ discrepancy: { id }, onSigned }: SignOffProps) {
  const dispatch = useAppDispatch();
  const { control, submit } = useEntryForm({
    type: "discrepancy.closed",
    first: { how: "", noFault: false },
    keep: `sign-off draft:${id}`,
    read: ({ how, noFault }) => ({
      data: { discrepancyId: id, how: how.trim(), ...(noFault && { noFault: true as const }) },
    }),
    onEntered: (data) => {
      // Recorded outside any preflight.
      dispatch(recordOfAircraft("discrepancy.closed", data));
      onSigned();
    },
  });
  const filled = useFilled(control, ["how"]);
  return (
    <View className="max-w-xl gap-2">
      <FormToggle control={control} name="noFault">
        Inspected: no fault found
      </FormToggle>
      <FormText control={control} name="how" label="What was done" maxLength={2000} multiline />
      <FormRootFault control={control} />
      <Button tone="primary" onPress={submit} disabled={!filled}>
        Sign off
      </Button>
    </View>
  );
}
