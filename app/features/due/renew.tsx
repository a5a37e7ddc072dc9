import { addDays } from "@cravix/core/airworthiness/calendar/local-date";
import type { DueItem } from "@cravix/core/airworthiness/due/due-item";
import { useState } from "react";
import { View } from "react-native";
import { recordOfAircraft } from "../../store/preflight/record";
import { useAppDispatch } from "../../store/state/hooks";
import { trimmed } from "../../ui/form/form-faults";
import { FormDate, FormRootFault, FormText } from "../../ui/form/form-fields";
import { useFormsSoon, useWatch } from "../../ui/form/form-library";
import { RestoredDraft } from "../../ui/form/restored-draft";
import { useEntryForm } from "../../ui/form/use-entry-form";
import { withFormLibrary } from "../../ui/form/with-form-library";
import { Button } from "../../ui/input/button";

interface RenewProps {
  registration: string;
  item: DueItem;
  today: string;
}

/** Renews a document, a database or another printed date without work. */
export function Renew(props: RenewProps) {
  useFormsSoon();
  const [open, setOpen] = useState(false);
  if (open) return <RenewForm {...props} onDone={() => setOpen(false)} />;
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
}

const RenewForm = withFormLibrary(RenewFormLoaded);

function RenewFormLoaded({ registration, item, today, onDone }: RenewProps & { onDone: () => void }) {
  const dispatch = useAppDispatch();
  const { control, submit, restored, startAgain } = useEntryForm({
    type: "document.renewed",
    first: { until: "", source: "" },
    keep: `renewal draft:${registration}:${item.id}`,
    read: (values) =>
      values.until > today
        ? { data: { registration, item: item.id, date: today, ...trimmed(values) } }
        : { faults: [{ at: "until", words: "Enter the date that is printed, after today." }] },
    onEntered: (data) => {
      dispatch(recordOfAircraft("document.renewed", data));
      onDone();
    },
  });
  const cancel = () => {
    startAgain();
    onDone();
  };
  const until = useWatch({ control, name: "until" });
  return (
    <View className="gap-2" testID="renewing">
      <RestoredDraft restored={restored} startAgain={startAgain} />
      <FormDate control={control} name="until" label="Valid until, as printed" min={addDays(today, 1)} />
      <FormText
        control={control}
        name="source"
        label="Where it is printed"
        maxLength={200}
        placeholder="policy number, certificate, label"
      />
      <FormRootFault control={control} />
      <View className="flex-row flex-wrap gap-2">
        <Button
          tone="primary"
          className="px-6"
          disabled={until <= today}
          testID="save-renewal"
          onPress={submit}
        >
          Save
        </Button>
        <Button tone="bare" textClassName="text-base" onPress={cancel}>
          Cancel
        </Button>
      </View>
    </View>
  );
}
