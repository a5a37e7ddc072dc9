import { AIRCRAFT_CLASSES } from "@cravix/core/airworthiness/people/person-due";
import type { EventData } from "@cravix/core/checklist/stream/events";
import type { Control } from "react-hook-form";
import { View } from "react-native";
import { usePersistedState } from "../../device/log/use-persisted-state";
import { recordStandalone } from "../../store/preflight/record";
import { useFleet } from "../../store/server/server-state";
import { useAppDispatch } from "../../store/state/hooks";
import { FormChoice, FormChoices, FormDate, FormRootFault, FormText } from "../../ui/form/form-fields";
import { useWatch } from "../../ui/form/form-library";
import { RestoredDraft } from "../../ui/form/restored-draft";
import { SaveOrCancel } from "../../ui/form/save-or-cancel";
import { useEntryForm } from "../../ui/form/use-entry-form";
import { withFormLibrary } from "../../ui/form/with-form-library";
import { Button } from "../../ui/input/button";
import { MinimaFields } from "./minima-fields";
import { isNamed, NO_ITEM, type PersonItemDraft, personItemOf } from "./person-item-draft";
import { GIVEN_PRESETS, PRESETS, type Preset } from "./presets";

interface AddProps {
  personId: string;
  /** True for those who may give authorisations. */
  gives: boolean;
  today: string;
}

/** Adds a due item of a person. */
export function AddPersonItem(props: AddProps) {
  // Saved, because changing the layout remounts the form.
  const { value: open, change } = usePersistedState(`due form open:${props.personId}`, false);
  if (open) return <AddForm {...props} onDone={() => change(() => false)} />;
  return (
    <Button
      className="self-start px-5"
      textClassName="text-base"
      testID="add-person-due"
      onPress={() => change(() => true)}
    >
      Add a due item
    </Button>
  );
}

const AddForm = withFormLibrary(AddFormLoaded);

function AddFormLoaded({ personId, gives, today, onDone }: AddProps & { onDone: () => void }) {
  const dispatch = useAppDispatch();
  const presets = gives ? [...PRESETS, ...GIVEN_PRESETS] : PRESETS;
  const presetOf = (name: string) => presets.find((one) => one.name === name) ?? (presets[0] as Preset);
  const { control, submit, getValues, restored, startAgain } = useEntryForm<
    PersonItemDraft,
    "person.due-set"
  >({
    type: "person.due-set",
    first: { ...NO_ITEM, preset: presets[0]?.name ?? "" },
    live: true,
    keep: `due draft:${personId}`,
    read: (draft) => {
      const entry = personItemOf(draft, presetOf(draft.preset), today);
      return "data" in entry ? { data: { personId, item: entry.data } } : entry;
    },
    onEntered: (data) => {
      dispatch(recordStandalone("person", "person.due-set", data));
      const { preset, examined } = getValues();
      const { minima, examined: byExamination } = presetOf(preset);
      // Setting personal minimums counts as reviewing them; an examination is what a medical runs from.
      const date = minima === "must" ? today : byExamination ? examined : undefined;
      if (date !== undefined)
        dispatch(recordStandalone("person", "person.done", { personId, work: { item: data.item.id, date } }));
      onDone();
    },
  });
  const preset = presetOf(useWatch({ control, name: "preset" }));
  return (
    <View className="gap-2 rounded-xl border-2 border-ink px-4 py-3">
      <RestoredDraft restored={restored} startAgain={startAgain} />
      <FormChoice control={control} name="preset" title="Type" options={presets.map((one) => one.name)} />
      <ItemFields control={control} preset={preset} today={today} />
      <FormRootFault control={control} />
      <Buttons control={control} preset={preset} today={today} onSave={submit} onCancel={onDone} />
    </View>
  );
}

type ItemControl = Control<PersonItemDraft, unknown, EventData["person.due-set"]>;

function ItemFields({ control, preset, today }: { control: ItemControl; preset: Preset; today: string }) {
  const fleet = useFleet();
  return (
    <>
      {isNamed(preset) && <FormText control={control} name="called" label="Name" maxLength={80} />}
      {preset.classed && (
        <FormChoice control={control} name="of" title="Aircraft class" options={AIRCRAFT_CLASSES} />
      )}
      {preset.aircraft && (
        <View role="group" aria-label="On which aircraft">
          <FormChoices
            control={control}
            name="aircraft"
            row
            options={(fleet?.aircraft ?? []).map(({ registration }) => ({
              id: registration,
              words: registration,
            }))}
          />
        </View>
      )}
      {preset.minima && <MinimaFields control={control} />}
      {preset.dated && <FormDate control={control} name="date" label="Valid until" min={today} />}
      {preset.examined && (
        <>
          <FormDate control={control} name="born" label="Date of birth" max={today} />
          <FormDate control={control} name="examined" label="Date of the examination" max={today} />
        </>
      )}
    </>
  );
}

/** Saving is possible once everything needed is entered. */
function Buttons({
  control,
  preset,
  today,
  onSave,
  onCancel,
}: {
  control: ItemControl;
  preset: Preset;
  today: string;
  onSave: () => void;
  onCancel: () => void;
}) {
  const draft = useWatch({ control });
  const ready = "data" in personItemOf(draft as PersonItemDraft, preset, today);
  return <SaveOrCancel disabled={!ready} testID="save-person-due" onSave={onSave} onCancel={onCancel} />;
}
