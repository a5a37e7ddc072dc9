import { hasProcedure, PROCEDURES, type Procedure } from "@cravix/core/run-up";
import { type RunUpEngine, sideNames } from "@cravix/core/run-up-entry";
import { capital } from "@cravix/core/units/format";
import { useState } from "react";
import { View } from "react-native";
import { Button } from "../../ui/input/button";
import { Toggle } from "../../ui/input/toggle";
import { Caution } from "../../ui/judgement-card";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { faultKindsOf, faultLabel, simulatedFaultText } from "./practice/random-scenario";
import type { SimulatedFaultChoice } from "./practice/simulated-fault";
import { PROCEDURE_WORDS } from "./procedure-text";

/** Choice of source, hands-free first, and the fault of the simulated engine. */
export function RunUpSourcePicker({
  engine,
  planted,
  onWay,
  onProcedure,
}: {
  engine: RunUpEngine;
  planted: SimulatedFaultChoice;
  onWay: (way: "live" | "practice" | "file" | "typed") => void;
  onProcedure: (procedure: Procedure) => void;
}) {
  const [open, setOpen] = useState(false);
  const { profile } = engine;
  const shown = planted.secret ? undefined : planted.fault.kind;
  /** A random fault applies to one practice run only. */
  const asPlanted = (way: "live" | "practice") => {
    planted.known();
    onWay(way);
  };
  const wide = useWide();
  return (
    <View className={wide ? "flex-row gap-10 pt-2" : "gap-3 pt-2"}>
      <View className={wide ? "flex-1 gap-3" : "gap-3"}>
        <Caution>
          Into wind, brakes set, propeller area clear. Eyes outside: this page speaks and moves on by itself.
        </Caution>
        <Button
          tone="primary"
          className="min-h-24"
          textClassName="text-2xl"
          onPress={() => asPlanted("live")}
          testID="way-live"
        >
          Engine monitor, live
        </Button>
        <View className="flex-row gap-2">
          <Button className="min-h-20 flex-1" onPress={() => onWay("typed")} testID="way-typed">
            Enter by hand
          </Button>
          <Button className="min-h-20 flex-1" onPress={() => onWay("file")} testID="way-file">
            Load a file
          </Button>
        </View>
      </View>
      <View className={wide ? "flex-1 gap-3" : "gap-3"}>
        <View role="group" aria-label="Practice" className="mt-1 gap-2">
          <Heading className="text-lg">Practice with a simulated engine</Heading>
          <Text className="text-sm text-voice">
            The numbers come from a simulated engine. Nothing is logged.
          </Text>
          <View className="flex-row gap-2">
            <Button
              className="min-h-16 flex-1 px-2"
              onPress={() => asPlanted("practice")}
              testID="way-practice"
            >
              {planted.chosen === "none" ? "A healthy engine" : capital(faultLabel(planted.chosen))}
            </Button>
            <Button
              className="min-h-16 flex-1 px-2"
              onPress={() => {
                planted.draw(profile);
                onWay("practice");
              }}
              testID="way-surprise"
            >
              Random fault
            </Button>
          </View>
        </View>
        <View role="group" aria-label="Single procedures" className="mt-1 gap-2">
          <Heading className="text-lg">Single procedures</Heading>
          <View className="flex-row flex-wrap gap-2">
            {PROCEDURES.filter((procedure) => hasProcedure(procedure, profile)).map((procedure) => (
              <Button
                key={procedure}
                className="min-h-16 min-w-[46%] flex-1 px-2"
                textClassName="text-base"
                testID={`procedure-${procedure.replace(" ", "-")}`}
                onPress={() => {
                  planted.known();
                  onProcedure(procedure);
                }}
              >
                {PROCEDURE_WORDS[procedure]}
              </Button>
            ))}
          </View>
        </View>
        <View className="mt-2 gap-2 rounded-xl bg-stone p-3">
          <Text className="text-sm">
            {`The engine monitor supplied is a simulation, including its pilot. Simulated fault: ${planted.secret ? "random" : simulatedFaultText(planted, sideNames(profile))}.`}
          </Text>
          <Button
            textClassName="text-base"
            onPress={() => setOpen(!open)}
            pressed={open}
            testID="simulate-fault"
          >
            Choose a simulated fault
          </Button>
          {open && (
            <View role="group" aria-label="Simulated fault">
              <Heading level={3} className="text-base">
                Simulated fault
              </Heading>
              <View className="flex-row flex-wrap gap-1.5">
                {faultKindsOf(profile).map((kind) => (
                  <Toggle key={kind} on={shown === kind} className="px-2" onPress={() => planted.set(kind)}>
                    {faultLabel(kind)}
                  </Toggle>
                ))}
              </View>
            </View>
          )}
        </View>
      </View>
    </View>
  );
}
