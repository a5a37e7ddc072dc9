import type { ReactNode } from "react";
import type { Control, FieldPath, FieldValues } from "react-hook-form";
import { View } from "react-native";
import { Alert } from "../alert";
import { Choice } from "../input/choice";
import { DateField } from "../input/date-field";
import { Stepper } from "../input/stepper";
import { TextField, type TextFieldProps } from "../input/text-field";
import { Toggle } from "../input/toggle";
import { Heading, Text } from "../text";
import { faultAt } from "./form-faults";
import { useFormLibrary } from "./form-library";

// The inputs of `ui/input`, bound to a form by name. A field of a record also has an entry.

// biome-ignore lint/suspicious/noExplicitAny: the result of a form does not matter to its fields
type AnyControl<D extends FieldValues> = Control<D, any, any>;

export interface Bound<D extends FieldValues> {
  control: AnyControl<D>;
  name: FieldPath<D>;
  /** Entry of a record, such as the id of a meter. */
  entry?: string;
}

/** Value, change and fault of a field, or of one entry of a record, for inputs beyond those below. */
export function useFormField<V, D extends FieldValues>({ control, name, entry }: Bound<D>) {
  const { field, fieldState } = useFormLibrary().useController({ control, name });
  const fault = faultAt(fieldState.error, entry);
  if (entry === undefined)
    return { value: field.value as V | undefined, onChange: (value: V) => field.onChange(value), fault };
  const record = (field.value ?? {}) as Record<string, V>;
  return {
    value: record[entry],
    onChange: (value: V) => field.onChange({ ...record, [entry]: value }),
    fault,
  };
}

type TextProps = Omit<TextFieldProps, "value" | "onChange" | "fault">;

/** Text of one or several lines. */
export function FormText<D extends FieldValues>({ control, name, entry, ...rest }: Bound<D> & TextProps) {
  const { value, onChange, fault } = useFormField<string, D>({ control, name, ...(entry && { entry }) });
  return <TextField {...rest} value={value ?? ""} onChange={onChange} fault={fault} />;
}

/** A number as typed, with its unit in the label; `typedNumber` reads it. */
export function FormNumber<D extends FieldValues>({
  unit,
  label,
  ...rest
}: Bound<D> & Omit<TextProps, "numeric" | "multiline"> & { unit?: string }) {
  return <FormText<D> {...rest} label={unit === undefined ? label : `${label}, ${unit}`} numeric />;
}

/** A day; "" if none is chosen. */
export function FormDate<D extends FieldValues>({
  control,
  name,
  entry,
  ...rest
}: Bound<D> & { label: string; min?: string; max?: string }) {
  const { value, onChange, fault } = useFormField<string, D>({ control, name, ...(entry && { entry }) });
  return <DateField {...rest} value={value ?? ""} onChange={onChange} fault={fault} />;
}

/** One of a few options. */
export function FormChoice<D extends FieldValues, V extends string>({
  control,
  name,
  entry,
  ...rest
}: Bound<D> & {
  title: string;
  options: readonly V[];
  words?: (option: V) => string;
  why?: string | undefined;
}) {
  const { value, onChange } = useFormField<V, D>({ control, name, ...(entry && { entry }) });
  return <Choice<V> {...rest} value={value} onChange={onChange} />;
}

/** On or off. */
export function FormToggle<D extends FieldValues>({
  control,
  name,
  children,
  testID,
  className = "self-start px-4",
  textClassName,
}: Bound<D> & { children: string; testID?: string; className?: string; textClassName?: string }) {
  const { value = false, onChange } = useFormField<boolean, D>({ control, name });
  return (
    <Toggle
      on={value}
      className={className}
      onPress={() => onChange(!value)}
      {...(testID && { testID })}
      {...(textClassName && { textClassName })}
    >
      {children}
    </Toggle>
  );
}

/** Any number of several options. */
export function FormChoices<D extends FieldValues>({
  control,
  name,
  options,
  row = false,
}: Bound<D> & {
  options: readonly { id: string; words: string; testID?: string }[];
  /** Side by side, as far as they fit. */
  row?: boolean;
}) {
  const { value = [], onChange } = useFormField<string[], D>({ control, name });
  return (
    <View className={row ? "flex-row flex-wrap gap-2" : "gap-2"}>
      {options.map(({ id, words, testID }) => (
        <Toggle
          key={id}
          on={value.includes(id)}
          className={row ? "" : "self-start px-4"}
          onPress={() => onChange(value.includes(id) ? value.filter((one) => one !== id) : [...value, id])}
          {...(testID && { testID })}
        >
          {words}
        </Toggle>
      ))}
    </View>
  );
}

/** A number in steps, without a keyboard. */
export function FormSteps<D extends FieldValues>({
  control,
  name,
  entry,
  label,
  min = 0,
  max = Number.POSITIVE_INFINITY,
  unset = min,
  words = String,
  ...rest
}: Bound<D> & {
  label?: string;
  /** Shown and counted from until it is changed. */
  unset?: number;
  step: number;
  unit: string;
  testID?: string;
  min?: number;
  max?: number;
  words?: (value: number) => string;
}) {
  const {
    value: entered,
    onChange,
    fault,
  } = useFormField<number, D>({ control, name, ...(entry && { entry }) });
  const value = Math.min(max, entered ?? unset);
  const stepper = (
    <Stepper
      {...rest}
      text={words(value)}
      onStep={(by) => onChange(Math.min(max, Math.max(min, value + by)))}
    />
  );
  if (label === undefined && fault === undefined) return stepper;
  return (
    <View className="gap-1">
      {label !== undefined && <Text className="font-mid text-sm">{label}</Text>}
      {stepper}
      {fault !== undefined && <Alert textClassName="text-sm">{fault}</Alert>}
    </View>
  );
}

/** Fields that belong together, with a hint. */
export function FormGroup({ title, hint, children }: { title: string; hint?: string; children: ReactNode }) {
  return (
    <View className="gap-2" role="group" aria-label={title}>
      <Heading className="text-lg">{title}</Heading>
      {hint !== undefined && <Text className="text-sm text-voice">{hint}</Text>}
      {children}
    </View>
  );
}

/** Two short fields side by side. */
export function Pair({ children }: { children: readonly [ReactNode, ReactNode] }) {
  return (
    <View className="flex-row gap-2">
      <View className="flex-1">{children[0]}</View>
      <View className="flex-1">{children[1]}</View>
    </View>
  );
}

/** A fault that belongs to no single field. */
export function FormRootFault<D extends FieldValues>({ control }: Pick<Bound<D>, "control">) {
  const { errors } = useFormLibrary().useFormState({ control });
  const words = faultAt(errors.root);
  return words === undefined ? null : <Alert>{words}</Alert>;
}
