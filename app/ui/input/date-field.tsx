import { createElement } from "react";
import { View } from "react-native";
import { Alert } from "../alert";
import { Text } from "../text";

/** A day, by the browser's own date field; "" if none or incomplete. */
export function DateField({
  label,
  value,
  onChange,
  min,
  max,
  fault,
}: {
  label: string;
  /** "2026-03-31". */
  value: string;
  onChange: (date: string) => void;
  min?: string;
  max?: string;
  fault?: string | undefined;
}) {
  return (
    <View>
      <Text className="mb-1 font-mid text-sm">{label}</Text>
      {createElement("input", {
        type: "date",
        "aria-label": label,
        value,
        ...(min !== undefined && { min }),
        ...(max !== undefined && { max }),
        onChange: ({ target }: { target: { value: string } }) => onChange(target.value),
        className:
          "min-h-14 w-full rounded-xl border-2 border-ink bg-paper px-3 py-3 font-body text-base text-ink",
      })}
      {fault && (
        <Alert className="mt-1" textClassName="text-sm">
          {fault}
        </Alert>
      )}
    </View>
  );
}
