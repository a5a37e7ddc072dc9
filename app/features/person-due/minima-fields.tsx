import type { EventData } from "@cravix/core/checklist/stream/events";
import { MINIMA_FIELDS, type MinimaField } from "@cravix/core/minima/minima";
import type { Control } from "react-hook-form";
import { View } from "react-native";
import { FormNumber, FormToggle } from "../../ui/form/form-fields";
import { Text } from "../../ui/text";
import type { PersonItemDraft } from "./person-item-draft";

const FIELDS = Object.keys(MINIMA_FIELDS) as MinimaField[];

/** Fields for personal minimums or an authorisation; empty means no limit. */
export function MinimaFields({
  control,
}: {
  control: Control<PersonItemDraft, unknown, EventData["person.due-set"]>;
}) {
  return (
    <View className="gap-2" testID="minima-fields">
      <Text className="text-sm text-voice">
        Empty fields set no limit. Set your minimums before you are under pressure to fly.
      </Text>
      <View className="flex-row flex-wrap gap-3">
        {FIELDS.map((field) => {
          const { name, unit, at } = MINIMA_FIELDS[field];
          return (
            <View key={field} className="min-w-[45%] flex-1">
              <FormNumber
                control={control}
                name="typed"
                entry={field}
                label={`${name}, at ${at}`}
                {...(unit !== "count" && { unit })}
                maxLength={6}
              />
            </View>
          );
        })}
      </View>
      <View className="flex-row flex-wrap gap-2">
        <FormToggle control={control} name="noNight" className="px-4">
          No night flights
        </FormToggle>
        <FormToggle control={control} name="noPassengers" className="px-4">
          No passengers
        </FormToggle>
        <FormToggle control={control} name="noUnknown" className="px-4">
          Nothing left “not assessed”
        </FormToggle>
      </View>
    </View>
  );
}
