import type { RecordMeter } from "@cravix/core/airworthiness/aircraft-record";
import { isCounted, readingFault, readingFor } from "@cravix/core/airworthiness/meters/meter";
import { formatNumber } from "@cravix/core/units/format";
import { typedNumber } from "@cravix/core/units/typed-number";
import { useState } from "react";
import { View } from "react-native";
import { recordOfAircraft } from "../../store/preflight/record";
import { useAppDispatch } from "../../store/state/hooks";
import { dayText } from "../../ui/day-and-time";
import { FormNumber, FormRootFault } from "../../ui/form/form-fields";
import { RestoredDraft } from "../../ui/form/restored-draft";
import { SaveOrCancel } from "../../ui/form/save-or-cancel";
import { useEntryForm } from "../../ui/form/use-entry-form";
import { useFilled } from "../../ui/form/use-filled";
import { withFormLibrary } from "../../ui/form/with-form-library";
import { Button } from "../../ui/input/button";
import { Text } from "../../ui/text";

/** A meter with its total; a mechanic logs its replacement. */
export function MeterCard({
  registration,
  meter,
  total,
  mayReplace,
}: {
  registration: string;
  meter: RecordMeter;
  total: number;
  mayReplace: boolean;
}) {
  const shows = readingFor(meter, total, new Date().toISOString());
  const [state, setState] = useState<"shown" | "replacing" | "replaced">("shown");
  const unit = isCounted(meter.kind) ? "" : " h";
  const last = meter.changes?.at(-1);
  return (
    <View className="gap-1 rounded-xl bg-stone px-4 py-3" testID={`meter-${meter.id}`}>
      <Text className="font-mid">{meter.name}</Text>
      <Text>
        {`${formatNumber(total, meter.decimals)}${unit} total${Math.abs(shows - total) > 1e-9 ? `; the meter shows ${formatNumber(shows, meter.decimals)}` : ""}.`}
      </Text>
      {last && (
        <Text className="text-sm text-voice">
          {`Replaced on ${dayText(last.at)}: old meter ${formatNumber(last.oldReading, meter.decimals)}, new meter started at ${formatNumber(last.newReading, meter.decimals)}.`}
        </Text>
      )}
      {state === "replaced" && <Text role="status">Replaced. The totals continue from here.</Text>}
      {state === "replacing" && (
        <ReplaceMeter
          registration={registration}
          meter={meter}
          shows={shows}
          onDone={(replaced) => setState(replaced ? "replaced" : "shown")}
        />
      )}
      {mayReplace && state !== "replacing" && (
        <Button
          className="self-start px-5"
          textClassName="text-base"
          testID={`replace-${meter.id}`}
          onPress={() => setState("replacing")}
        >
          Log a meter replacement
        </Button>
      )}
    </View>
  );
}

const ReplaceMeter = withFormLibrary(ReplaceMeterLoaded);

function ReplaceMeterLoaded({
  registration,
  meter,
  shows,
  onDone,
}: {
  registration: string;
  meter: RecordMeter;
  /** What the old meter should show. */
  shows: number;
  onDone: (replaced: boolean) => void;
}) {
  const dispatch = useAppDispatch();
  const { control, submit, restored, startAgain } = useEntryForm({
    type: "meter.replaced",
    first: { oldReading: String(shows), newReading: "0" },
    live: true,
    keep: `meter draft:${registration}:${meter.id}`,
    read: (values) => {
      const [oldReading, newReading] = [typedNumber(values.oldReading), typedNumber(values.newReading)];
      const oldFault = readingFault(meter, oldReading) ?? behindLog(meter, oldReading, shows);
      const newFault = readingFault(meter, newReading);
      return oldFault || newFault
        ? {
            faults: [
              ...(oldFault ? [{ at: "oldReading", words: oldFault }] : []),
              ...(newFault ? [{ at: "newReading", words: newFault }] : []),
            ],
          }
        : { data: { registration, meter: meter.id, oldReading, newReading } };
    },
    onEntered: (data) => {
      dispatch(recordOfAircraft("meter.replaced", data));
      onDone(true);
    },
  });
  const filled = useFilled(control, ["oldReading", "newReading"]);
  const cancel = () => {
    startAgain();
    onDone(false);
  };
  return (
    <View className="gap-2">
      <RestoredDraft restored={restored} startAgain={startAgain} />
      <FormNumber control={control} name="oldReading" label="Old meter reading" maxLength={12} />
      <FormNumber control={control} name="newReading" label="New meter reading" maxLength={12} />
      <FormRootFault control={control} />
      <SaveOrCancel disabled={!filled} testID="save-meter" onSave={submit} onCancel={cancel} />
    </View>
  );
}

const behindLog = (meter: RecordMeter, reading: number, shows: number): string | undefined =>
  reading < shows - 1e-9
    ? `The log already shows ${formatNumber(shows, meter.decimals)}. Check this reading and the last flight entry.`
    : undefined;
