import { spokenDate } from "@cravix/core/airworthiness/calendar/local-date";
import type { LoadingProfile } from "@cravix/core/mass-and-balance/loading-profile";
import { formatNumber } from "@cravix/core/units/format";
import { useState } from "react";
import { View } from "react-native";
import { Alert } from "../../ui/alert";
import { Button } from "../../ui/input/button";
import { DateField } from "../../ui/input/date-field";
import { TextField } from "../../ui/input/text-field";
import { Toggle } from "../../ui/input/toggle";
import { Heading, Text } from "../../ui/text";
import { useWeighing } from "./use-weighing";

/** Last weighing of the aircraft, and a form for the next with permission. */
export function WeighingReport({ profile, mayWrite }: { profile: LoadingProfile; mayWrite: boolean }) {
  const [open, setOpen] = useState(false);
  const [saved, setSaved] = useState(false);
  const { weighing, datum } = profile;
  return (
    <View className="gap-2" testID="weighing">
      <Text className="text-sm text-voice">
        {`Weighed on ${spokenDate(weighing.date)}: ${formatNumber(weighing.emptyKg)} kg at ${formatNumber(weighing.armMm)} mm aft of ${datum} (${weighing.source.text}).`}
      </Text>
      {saved && <Text role="status">Saved. Mass and balance now uses this report.</Text>}
      {mayWrite && !open && (
        <Button
          className="self-start"
          textClassName="text-base"
          onPress={() => {
            setSaved(false);
            setOpen(true);
          }}
        >
          Enter a new weighing report
        </Button>
      )}
      {open && (
        <WeighingForm
          profile={profile}
          onDone={(kept) => {
            setSaved(kept);
            setOpen(false);
          }}
        />
      )}
    </View>
  );
}

function WeighingForm({ profile, onDone }: { profile: LoadingProfile; onDone: (saved: boolean) => void }) {
  const { draft, write, change, faults, message, save } = useWeighing(profile);
  const [sameDatum, setSameDatum] = useState(false);
  const fault = (field: string) =>
    faults.find(({ path }) => path.startsWith("weighing") && path.endsWith(field))?.expected;
  const elsewhere = faults.filter(({ path }) => !path.startsWith("weighing"));
  const doubted = change?.odd && !sameDatum;
  return (
    <View className="gap-3 rounded-xl border-2 border-ink p-3" testID="weighing-form">
      <Heading className="text-lg">New weighing report</Heading>
      <Text className="text-sm text-voice">{`The CG arm is measured aft of ${profile.datum}.`}</Text>
      <DateField
        label="Date of weighing"
        value={draft.date}
        onChange={(date) => write({ date })}
        fault={fault("date")}
      />
      <View className="flex-row gap-3">
        <View className="flex-1">
          <TextField
            label="Empty mass, kg"
            value={draft.kg}
            onChange={(kg) => write({ kg })}
            maxLength={8}
            numeric
            fault={fault("emptyKg")}
          />
        </View>
        <View className="flex-1">
          <TextField
            label="Empty CG arm, mm"
            value={draft.mm}
            onChange={(mm) => {
              setSameDatum(false);
              write({ mm });
            }}
            maxLength={8}
            numeric
            fault={fault("armMm")}
          />
        </View>
      </View>
      <TextField
        label="Report number and workshop"
        value={draft.text}
        onChange={(text) => write({ text })}
        maxLength={200}
        placeholder="weighing report 14, workshop Marram Point"
        fault={fault("text")}
      />
      {change && (
        <Text testID="weighing-change">
          {`Compared with the last report: ${formatNumber(Math.abs(change.kg), 1)} kg ${change.kg < 0 ? "lighter" : "heavier"}, CG ${formatNumber(Math.abs(change.mm))} mm further ${change.mm < 0 ? "forward" : "aft"}.`}
        </Text>
      )}
      {change?.odd && (
        <>
          <Alert>
            {`The CG has moved further than a change of ${formatNumber(Math.abs(change.kg), 1)} kg can explain. Check that the arm is measured from ${profile.datum}, and in millimetres.`}
          </Alert>
          <Toggle
            on={sameDatum}
            label={`Yes: in millimetres from ${profile.datum}`}
            onPress={() => setSameDatum(!sameDatum)}
          >
            {`Yes: in millimetres from ${profile.datum}`}
          </Toggle>
        </>
      )}
      {elsewhere.map(({ path, expected }) => (
        <Alert key={path}>{`${path}: ${expected}`}</Alert>
      ))}
      {message !== "" && <Alert testID="weighing-message">{message}</Alert>}
      <View className="flex-row gap-2">
        <Button textClassName="text-base" onPress={() => onDone(false)}>
          Cancel
        </Button>
        <Button
          tone="primary"
          className="flex-1"
          textClassName="text-base"
          disabled={doubted === true}
          onPress={() => void save().then((kept) => kept && onDone(true))}
        >
          Save for everyone
        </Button>
      </View>
    </View>
  );
}
