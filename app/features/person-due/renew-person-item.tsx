import { isLocalDate } from "@cravix/core/airworthiness/calendar/local-date";
import type { PersonDue } from "@cravix/core/airworthiness/people/person-due";
import { View } from "react-native";
import { recordStandalone } from "../../store/preflight/record";
import { useAppDispatch } from "../../store/state/hooks";
import type { FormFault } from "../../ui/form/form-faults";
import { FormDate, FormRootFault } from "../../ui/form/form-fields";
import { useWatch } from "../../ui/form/form-library";
import { RestoredDraft } from "../../ui/form/restored-draft";
import { useEntryForm } from "../../ui/form/use-entry-form";
import { withFormLibrary } from "../../ui/form/with-form-library";
import { Button } from "../../ui/input/button";

interface RenewalProps {
  personId: string;
  item: PersonDue;
  today: string;
  onDone: () => void;
}

/** Renews a medical, rating or another item: the day, and the new printed date if it has one. */
export const RenewPersonItem = withFormLibrary(RenewPersonItemLoaded);

function RenewPersonItemLoaded({ personId, item, today, onDone }: RenewalProps) {
  const dispatch = useAppDispatch();
  const printed = item.limits.some(({ by }) => by === "date");
  const { control, submit, restored, startAgain } = useEntryForm({
    type: "person.done",
    first: { date: today, until: "" },
    keep: `person renewal draft:${personId}:${item.id}`,
    read: ({ date, until }) => {
      const faults = renewalFaults({ date, until, printed, today });
      if (faults.length > 0) return { faults };
      return {
        data: { personId, work: { item: item.id, date, ...(until !== "" && { sets: { date: until } }) } },
      };
    },
    onEntered: (data) => {
      dispatch(recordStandalone("person", "person.done", data));
      onDone();
    },
  });
  const [date, until] = useWatch({ control, name: ["date", "until"] });
  return (
    <View className="gap-2">
      <RestoredDraft restored={restored} startAgain={startAgain} />
      <FormDate control={control} name="date" label="Date of renewal" max={today} />
      {printed && <FormDate control={control} name="until" label="Valid until" min={date} />}
      <FormRootFault control={control} />
      <Button
        tone="primary"
        className="self-start px-5"
        disabled={printed && until === ""}
        testID="save-renewed"
        onPress={submit}
      >
        Save
      </Button>
    </View>
  );
}

/** Faults of a renewal: an invalid or future day, a printed date that is missing or before the renewal. */
export function renewalFaults({
  date,
  until,
  printed,
  today,
}: {
  date: string;
  until: string;
  printed: boolean;
  today: string;
}): FormFault[] {
  const faults: FormFault[] = [];
  if (!isLocalDate(date)) faults.push({ at: "date", words: "Enter the date of the renewal." });
  else if (date > today) faults.push({ at: "date", words: "The date is in the future. Check it." });
  if (printed && !isLocalDate(until)) faults.push({ at: "until", words: "Enter the date that is printed." });
  else if (printed && until < date)
    faults.push({ at: "until", words: "This is before the renewal. Check both dates." });
  return faults;
}
