import { contentHash } from "@cravix/contract/content-hash";
import type { LoadingProfile } from "@cravix/core/mass-and-balance/loading-profile";
import { weighingChange } from "@cravix/core/mass-and-balance/same-datum";
import { formatNumber } from "@cravix/core/units/format";
import { useState } from "react";
import { View } from "react-native";
import { notSaved } from "../../store/server/not-saved";
import { useSendFileMutation } from "../../store/server/records-api";
import { refresh } from "../../store/server/server-state";
import { useAppDispatch } from "../../store/state/hooks";
import { Alert } from "../../ui/alert";
import { FormDate, FormNumber, FormRootFault, FormText, Pair, useFormField } from "../../ui/form/form-fields";
import { useWatch } from "../../ui/form/form-library";
import { RestoredDraft } from "../../ui/form/restored-draft";
import { type EntryForm, useDataForm } from "../../ui/form/use-entry-form";
import { withFormLibrary } from "../../ui/form/with-form-library";
import { Button } from "../../ui/input/button";
import { Toggle } from "../../ui/input/toggle";
import { Heading, Text } from "../../ui/text";
import { NO_WEIGHING, profileOf, type WeighingDraft, weighingOf } from "./weighing-draft";

interface WeighingFormProps {
  profile: LoadingProfile;
  onDone: (saved: boolean) => void;
}

/** A new weighing report. Its draft survives a reload, and it is recorded only when saved. */
export const WeighingForm = withFormLibrary(WeighingFormLoaded);

function WeighingFormLoaded({ profile, onDone }: WeighingFormProps) {
  const dispatch = useAppDispatch();
  const [sendFile] = useSendFileMutation();
  const [message, setMessage] = useState("");
  const form = useDataForm<WeighingDraft, { text: string }>({
    first: NO_WEIGHING,
    keep: `weighing draft:${profile.registration}`,
    read: (draft) => profileOf(profile, draft),
    onEntered: async ({ text }) => {
      const { error } = await sendFile({ text, basis: contentHash(profile) });
      if (error) {
        setMessage(notSaved(error));
        return false;
      }
      await refresh(dispatch, profile.registration);
      onDone(true);
      return true;
    },
  });
  const { control, submit } = form;
  const draft = useWatch({ control }) as WeighingDraft;
  const weighing = weighingOf(draft);
  const change = weighing && weighingChange(profile.weighing, weighing);
  return (
    <View className="gap-3 rounded-xl border-2 border-ink p-3" testID="weighing-form">
      <Heading className="text-lg">New weighing report</Heading>
      <Text className="text-sm text-voice">{`The CG arm is measured aft of ${profile.datum}.`}</Text>
      <RestoredDraft restored={form.restored} startAgain={form.startAgain} />
      <FormDate control={control} name="date" label="Date of weighing" />
      <Pair>
        <FormNumber control={control} name="kg" label="Empty mass" unit="kg" maxLength={8} />
        <FormNumber control={control} name="mm" label="Empty CG arm" unit="mm" maxLength={8} />
      </Pair>
      <FormText
        control={control}
        name="text"
        label="Report number and workshop"
        maxLength={200}
        placeholder="weighing report 14, workshop Marram Point"
      />
      {change && <ChangeSinceLast change={change} datum={profile.datum} form={form} />}
      <FormRootFault control={control} />
      {message !== "" && <Alert testID="weighing-message">{message}</Alert>}
      <View className="flex-row gap-2">
        <Button textClassName="text-base" onPress={() => onDone(false)}>
          Cancel
        </Button>
        <Button
          tone="primary"
          className="flex-1"
          textClassName="text-base"
          disabled={change?.odd === true && draft.sameDatum !== draft.mm}
          onPress={() => {
            setMessage("");
            submit();
          }}
        >
          Save for everyone
        </Button>
      </View>
    </View>
  );
}

/** What the new report changes; a change that mass alone cannot explain is asked about. */
function ChangeSinceLast({
  change,
  datum,
  form: { control },
}: {
  change: ReturnType<typeof weighingChange>;
  datum: string;
  form: EntryForm<WeighingDraft, { text: string }>;
}) {
  const arm = useWatch({ control, name: "mm" });
  const confirmed = useFormField<string, WeighingDraft>({ control, name: "sameDatum" });
  return (
    <>
      <Text testID="weighing-change">
        {`Compared with the last report: ${formatNumber(Math.abs(change.kg), 1)} kg ${change.kg < 0 ? "lighter" : "heavier"}, CG ${formatNumber(Math.abs(change.mm))} mm further ${change.mm < 0 ? "forward" : "aft"}.`}
      </Text>
      {change.odd && (
        <>
          <Alert>
            {`The CG has moved further than a change of ${formatNumber(Math.abs(change.kg), 1)} kg can explain. Check that the arm is measured from ${datum}, and in millimetres.`}
          </Alert>
          <Toggle
            on={confirmed.value === arm}
            onPress={() => confirmed.onChange(confirmed.value === arm ? "" : arm)}
          >
            {`Yes: in millimetres from ${datum}`}
          </Toggle>
        </>
      )}
    </>
  );
}
