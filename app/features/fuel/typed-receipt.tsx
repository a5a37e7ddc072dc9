import { FUEL_UNITS, type FuelUnit } from "@cravix/core/fuel/grade/fuel-amount";
import { View } from "react-native";
import { FormChoice, FormRootFault, FormText, useFormField } from "../../ui/form/form-fields";
import { useWatch } from "../../ui/form/form-library";
import { RestoredDraft } from "../../ui/form/restored-draft";
import { useEntryForm } from "../../ui/form/use-entry-form";
import { withFormLibrary } from "../../ui/form/with-form-library";
import { Button } from "../../ui/input/button";
import { Keypad, pressKey } from "../../ui/input/keypad";
import { Text } from "../../ui/text";
import { moreThanItHolds, Trouble, type WayProps } from "./receipt-parts";

interface ReceiptDraft {
  amount: string;
  unit: FuelUnit;
  receipt: string;
}

/** An uplift entered by hand. */
export const TypedReceipt = withFormLibrary(TypedReceiptLoaded);

const MOST = 5000;

function TypedReceiptLoaded({ registration, tank, grade, onUplift }: WayProps) {
  const { control, submit, questions, restored, startAgain } = useEntryForm<ReceiptDraft, "fuel.uplifted">({
    type: "fuel.uplifted",
    first: { amount: "", unit: "L", receipt: "" },
    keep: `receipt draft:${registration}:${tank.id}`,
    read: ({ amount: typed, unit, receipt }) => {
      const amount = Number(typed);
      if (typed === "" || !(amount > 0))
        return { faults: [{ at: "amount", words: "Enter the amount on the receipt." }] };
      if (amount > MOST)
        return {
          faults: [
            {
              at: "amount",
              words: "This is more than any light aircraft holds. Check the amount and the unit.",
            },
          ],
        };
      const number = receipt.trim();
      return {
        data: {
          registration,
          tankId: tank.id,
          amount,
          unit,
          grade,
          from: "typed",
          ...(number && { receipt: number }),
        },
      };
    },
    // Confirmed, it is logged as it is and compared with the dipstick.
    ask: (uplift) => {
      const tooMuch = moreThanItHolds({ ...uplift, grade }, tank);
      return tooMuch === undefined ? [] : [`${tooMuch} If the receipt really says so, log it.`];
    },
    onEntered: ({ registration: _, ...uplift }) => onUplift(uplift),
  });
  const amount = useFormField<string, ReceiptDraft>({ control, name: "amount" });
  const unit = useWatch({ control, name: "unit" });
  const text = amount.value ?? "";
  return (
    <View className="gap-3">
      <RestoredDraft restored={restored} startAgain={startAgain} />
      <FormChoice control={control} name="unit" title="Unit on the receipt" options={FUEL_UNITS} />
      <FormText control={control} name="receipt" label="Receipt number" large maxLength={40} />
      <View className="gap-2 rounded-2xl bg-deck p-3">
        <Text
          className="text-center font-strong text-2xl text-deck-ink"
          testID="uplift-amount"
        >{`${text || "…"} ${unit}`}</Text>
        <Keypad
          decimals={1}
          negative={false}
          onKey={(key) => amount.onChange(pressKey(text, key, { decimals: 1, negative: false }))}
        />
        <Button tone="primary" className="min-h-16" testID="log-receipt" onPress={submit}>
          Log it
        </Button>
      </View>
      {amount.fault !== undefined && <Trouble>{amount.fault}</Trouble>}
      <FormRootFault control={control} />
      {questions.map((words) => (
        <Trouble key={words}>{words}</Trouble>
      ))}
    </View>
  );
}
