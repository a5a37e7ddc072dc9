import { spokenDate } from "@cravix/core/airworthiness/calendar/local-date";
import type { LoadingProfile } from "@cravix/core/mass-and-balance/loading-profile";
import { formatNumber } from "@cravix/core/units/format";
import { useState } from "react";
import { View } from "react-native";
import { useFormsSoon } from "../../ui/form/form-library";
import { Button } from "../../ui/input/button";
import { Text } from "../../ui/text";
import { WeighingForm } from "./weighing-form";

/** Last weighing of the aircraft, and a form for the next with permission. */
export function WeighingReport({ profile, mayWrite }: { profile: LoadingProfile; mayWrite: boolean }) {
  useFormsSoon();
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
