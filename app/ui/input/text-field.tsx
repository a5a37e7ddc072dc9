import { TextInput, View } from "react-native";
import { Alert } from "../alert";
import { usePalette } from "../paint/use-palette";
import { Text } from "../text";

export interface TextFieldProps {
  /** Visible label, and accessible name unless `named` is given. */
  label: string;
  named?: string;
  /** Hides a label the page already shows. */
  hideLabel?: boolean;
  value: string;
  onChange: (text: string) => void;
  maxLength: number;
  placeholder?: string;
  multiline?: boolean;
  autoFocus?: boolean;
  large?: boolean;
  /** Numeric keyboard. */
  numeric?: boolean;
  /** Fault, shown at the field. */
  fault?: string | undefined;
}

/** Text input of one or several lines, tall enough for gloves. */
export function TextField({
  label,
  named = label,
  hideLabel = false,
  value,
  onChange,
  maxLength,
  placeholder,
  multiline = false,
  autoFocus = false,
  large = false,
  numeric = false,
  fault,
}: TextFieldProps) {
  const { voice } = usePalette();
  return (
    <View>
      {!hideLabel && <Text className="mb-1 font-mid text-sm">{label}</Text>}
      <TextInput
        aria-label={named}
        className={`min-h-14 rounded-xl border-2 border-ink bg-paper px-3 py-3 font-body text-ink ${large ? "text-lg" : "text-base"}`}
        value={value}
        onChangeText={onChange}
        maxLength={maxLength}
        multiline={multiline}
        autoFocus={autoFocus}
        {...(numeric && { inputMode: "decimal" as const })}
        placeholder={placeholder}
        placeholderTextColor={voice}
      />
      {fault && (
        <Alert className="mt-1" textClassName="text-sm">
          {fault}
        </Alert>
      )}
    </View>
  );
}
