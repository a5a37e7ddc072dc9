import { MINIMA_FIELDS, type Minima, type MinimaField } from "@cravix/core/minima/minima";
import { formatQuantity } from "@cravix/core/units/format";
import { View } from "react-native";
import { TextField } from "../../ui/input/text-field";
import { Toggle } from "../../ui/input/toggle";
import { Text } from "../../ui/text";

/** Limits as entered, and yes/no limits. */
export interface MinimaDraft {
  typed: Partial<Record<MinimaField, string>>;
  noNight: boolean;
  noPassengers: boolean;
  noUnknown: boolean;
}

export const NO_MINIMA: MinimaDraft = { typed: {}, noNight: false, noPassengers: false, noUnknown: false };
const FIELDS = Object.keys(MINIMA_FIELDS) as MinimaField[];
const number = (text: string) => Number(text.trim().replace(",", "."));

/** Fault of one entry; undefined if valid or empty, which means no limit. */
export function minimaFault(field: MinimaField, text = ""): string | undefined {
  if (text.trim() === "") return undefined;
  const { min, max } = MINIMA_FIELDS[field];
  const value = number(text);
  return Number.isFinite(value) && value >= min && value <= max
    ? undefined
    : `Enter a number from ${min} to ${max}.`;
}

/** Limits from a draft; undefined while an entry is invalid, or without any limit. */
export function minimaOfDraft({ typed, noNight, noPassengers, noUnknown }: MinimaDraft): Minima | undefined {
  if (FIELDS.some((field) => minimaFault(field, typed[field]))) return undefined;
  const numbers = FIELDS.flatMap((field) => {
    const text = typed[field]?.trim() ?? "";
    return text === "" ? [] : [[field, number(text)] as const];
  });
  if (numbers.length === 0 && !noNight && !noPassengers && !noUnknown) return undefined;
  return {
    ...Object.fromEntries(numbers),
    ...(noNight && { noNight: true as const }),
    ...(noPassengers && { noPassengers: true as const }),
    ...(noUnknown && { noUnknown: true as const }),
  };
}

/** Fields for personal minimums or an authorisation; empty means no limit. */
export function MinimaFields({
  draft,
  onChange,
}: {
  draft: MinimaDraft;
  onChange: (draft: MinimaDraft) => void;
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
              <TextField
                label={`${name}, at ${at}${unit === "count" ? "" : `, ${unit}`}`}
                value={draft.typed[field] ?? ""}
                onChange={(text) => onChange({ ...draft, typed: { ...draft.typed, [field]: text } })}
                maxLength={6}
                numeric
                fault={minimaFault(field, draft.typed[field])}
              />
            </View>
          );
        })}
      </View>
      <View className="flex-row flex-wrap gap-2">
        <Toggle
          on={draft.noNight}
          className="px-4"
          onPress={() => onChange({ ...draft, noNight: !draft.noNight })}
        >
          No night flights
        </Toggle>
        <Toggle
          on={draft.noPassengers}
          className="px-4"
          onPress={() => onChange({ ...draft, noPassengers: !draft.noPassengers })}
        >
          No passengers
        </Toggle>
        <Toggle
          on={draft.noUnknown}
          className="px-4"
          onPress={() => onChange({ ...draft, noUnknown: !draft.noUnknown })}
        >
          Nothing left “not assessed”
        </Toggle>
      </View>
    </View>
  );
}

/** Limits on one line. */
export function minimaText(minima: Minima): string {
  return [
    ...FIELDS.flatMap((field) => {
      const value = minima[field];
      const { name, unit, at } = MINIMA_FIELDS[field];
      return value === undefined ? [] : [`${name.toLowerCase()} at ${at} ${formatQuantity({ value, unit })}`];
    }),
    ...(minima.noNight ? ["no night flights"] : []),
    ...(minima.noPassengers ? ["no passengers"] : []),
    ...(minima.noUnknown ? ["nothing left not assessed"] : []),
  ].join(", ");
}
