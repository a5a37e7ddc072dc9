import type { SerializedError } from "@reduxjs/toolkit";
import { useReducer } from "react";
import { View } from "react-native";
import { useDeliverMutation } from "../../store/server/records-api";
import type { ServerError } from "../../store/state/server-api";
import { Button } from "../../ui/input/button";
import { Stepper } from "../../ui/input/stepper";
import { Text } from "../../ui/text";
import { FIRST_ORDER, pumpPhase } from "./pump-phase";
import { moreThanItHolds, ReceiptCard, Trouble, toUplift, type WayProps } from "./receipt-parts";

/** Orders fuel at the pump and logs its receipt. */
export function AtThePump({ registration, tank, grade, onUplift }: WayProps) {
  const [phase, step] = useReducer(pumpPhase, FIRST_ORDER);
  const [order] = useDeliverMutation();
  if (phase.name === "delivered") {
    const { receipt } = phase;
    const tooMuch = moreThanItHolds(receipt, tank);
    return (
      <View className="gap-2">
        <ReceiptCard receipt={receipt} />
        {tooMuch !== undefined && <Trouble>{tooMuch}</Trouble>}
        <Button
          tone="primary"
          className="min-h-16"
          testID="log-receipt"
          onPress={() => onUplift(toUplift(receipt, tank.id, "pump"))}
        >
          Log this receipt
        </Button>
      </View>
    );
  }
  const { litres } = phase;
  const deliver = async () => {
    step({ type: "started" });
    const { data, error } = await order({ registration, tankId: tank.id, litres, grade });
    step(data ? { type: "delivered", receipt: data } : { type: "failed", problem: wordsOf(error) });
  };
  return (
    <View className="gap-2">
      <Stepper
        text={`${litres} L`}
        step={5}
        unit="litres"
        testID="pump-litres"
        onStep={(by) => step({ type: "stepped", by, capacityL: tank.capacityL })}
      />
      <Button
        className="min-h-16"
        testID="deliver"
        disabled={phase.name === "pumping"}
        onPress={() => void deliver()}
      >
        Start the pump
      </Button>
      {phase.name === "ordering" && phase.problem !== undefined && <Trouble>{phase.problem}</Trouble>}
      <Text className="text-sm text-voice">
        Simulated pump: the receipt may be wrong. The dipstick shows what is really in the tank.
      </Text>
    </View>
  );
}

const wordsOf = (error: ServerError | SerializedError): string =>
  "reached" in error && error.reached
    ? [error.message, ...(error.faults ?? []).map((fault) => fault.expected)].join(" ")
    : "No network: the pump cannot be reached. Enter the receipt by hand.";
