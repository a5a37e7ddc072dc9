import { fittingError } from "@cravix/core/airworthiness/component-moves";
import { useState } from "react";
import { View } from "react-native";
import { recordOfAircraft } from "../../store/preflight/record";
import { useAppDispatch } from "../../store/state/hooks";
import { FormRootFault, FormText, useFormField } from "../../ui/form/form-fields";
import { SaveOrCancel } from "../../ui/form/save-or-cancel";
import { useEntryForm } from "../../ui/form/use-entry-form";
import { withFormLibrary } from "../../ui/form/with-form-library";
import { Button } from "../../ui/input/button";
import { Toggle } from "../../ui/input/toggle";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import type { Airworthiness } from "../due";
import { timesOf } from "./component-times";
import type { OnShelf } from "./use-workshop";

interface FitProps {
  registration: string;
  papers: Airworthiness["onFile"];
  shelf: readonly OnShelf[];
  away: boolean;
}

/** Fits a component, from storage or new. */
export function Fit(props: FitProps) {
  // On wide screens stored components are shown at once.
  const [open, setOpen] = useState(useWide());
  if (open) return <FitForm {...props} onDone={() => setOpen(false)} />;
  return (
    <Button
      className="self-start px-5"
      textClassName="text-base"
      testID="fit-component"
      onPress={() => setOpen(true)}
    >
      Fit a component from the shelf
    </Button>
  );
}

const FitForm = withFormLibrary(FitFormLoaded);

function FitFormLoaded({ registration, papers, shelf, away, onDone }: FitProps & { onDone: () => void }) {
  const dispatch = useAppDispatch();
  const { control, submit } = useEntryForm({
    type: "component.fitted",
    first: { component: "", position: "" },
    read: (values) => {
      const one = shelf.find(({ component }) => component.id === values.component);
      if (!one) return { faults: [{ at: "root", words: "Choose the component that was fitted." }] };
      const { component, items, works } = one;
      const position = values.position.trim();
      const why = fittingError(papers.record, { component, items }, position || undefined);
      if (why) return { faults: [{ at: "root", words: why }] };
      return {
        data: {
          registration,
          component,
          items,
          works,
          totals: { ...papers.totals },
          ...(position && { position }),
        },
      };
    },
    onEntered: (data) => {
      dispatch(recordOfAircraft("component.fitted", data));
      onDone();
    },
  });
  const { value: chosen = "", onChange: choose } = useFormField<
    string,
    { component: string; position: string }
  >({ control, name: "component" });
  return (
    <View className="gap-2 rounded-xl border-2 border-ink px-4 py-3">
      <Heading className="text-lg">On the shelf</Heading>
      {away && (
        <Text className="text-voice">No network: the parts on the shelf are not known on this device.</Text>
      )}
      {!away && shelf.length === 0 && (
        <Text className="text-voice">
          Empty. Components appear here when they are removed from an aircraft.
        </Text>
      )}
      {shelf.map(({ component, from, problem: why }) => (
        <Toggle
          key={component.id}
          disabled={why !== undefined}
          on={component.id === chosen}
          className="items-start px-4"
          textClassName="text-base text-left"
          onPress={() => choose(component.id)}
        >
          {why === undefined
            ? `${component.name}, from ${from}: ${timesOf(component, component.sinceNew, papers.record.meters).join(", ")}`
            : `${component.name}, from ${from}: its times cannot be calculated. ${why}`}
        </Toggle>
      ))}
      {chosen !== "" && (
        <FormText
          control={control}
          name="position"
          label="Position on the aircraft"
          maxLength={60}
          placeholder="left engine, nose …"
        />
      )}
      <FormRootFault control={control} />
      <SaveOrCancel
        save="Fitted: save"
        disabled={chosen === ""}
        testID="save-fitted"
        onSave={submit}
        onCancel={onDone}
      />
    </View>
  );
}
