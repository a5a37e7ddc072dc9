import type { AircraftType } from "@cravix/core/aircraft/aircraft-type";
import { fuelGrade } from "@cravix/core/fuel/grade/fuel-grades";
import { useState } from "react";
import { View } from "react-native";
import { useFormsSoon } from "../../ui/form/form-library";
import { Choice } from "../../ui/input/choice";
import { Caution } from "../../ui/judgement-card";
import { AtThePump } from "./at-the-pump";
import type { Uplift } from "./receipt-parts";
import { ReceiptsFile } from "./receipts-file";
import { TypedReceipt } from "./typed-receipt";

const WAYS = ["At the pump", "By hand", "Load a file"] as const;

/** Logs an uplift: from the pump with its receipt, entered by hand, or from the pump's file. */
export function Refuel({
  type,
  registration,
  onUplift,
}: {
  type: Pick<AircraftType, "fuel">;
  registration: string;
  onUplift: (uplift: Uplift) => void;
}) {
  useFormsSoon();
  const tanks = type.fuel?.tanks ?? [];
  const [way, setWay] = useState<(typeof WAYS)[number]>("At the pump");
  const [tankId, setTank] = useState(tanks[0]?.id ?? "");
  const grades = type.fuel?.grades ?? ["100LL"];
  const [grade, setGrade] = useState(grades[0] ?? "100LL");
  const tank = tanks.find((t) => t.id === tankId);
  if (!tank) return null;
  const common = { registration, tank, grade, onUplift };
  return (
    <View className="gap-4">
      <Caution>
        Connect the bonding cable first. Nobody on board, no phones near the filler. Drain every sump
        afterwards.
      </Caution>
      {tanks.length > 1 && (
        <Choice
          title="Tank"
          options={tanks.map((t) => t.id)}
          value={tankId}
          onChange={setTank}
          words={(id) => tanks.find((t) => t.id === id)?.name ?? id}
        />
      )}
      <Choice
        title="Fuel grade"
        options={[...grades, ...(grades.includes("kerosene") ? [] : ["kerosene"])]}
        value={grade}
        onChange={setGrade}
        words={(id) => fuelGrade(id)?.name ?? id}
        why={grades.includes(grade) ? undefined : "Not approved for this aircraft: do not put it in."}
      />
      <Choice title="Amount from" options={WAYS} value={way} onChange={setWay} />
      {way === "At the pump" && <AtThePump {...common} />}
      {way === "By hand" && <TypedReceipt {...common} />}
      {way === "Load a file" && <ReceiptsFile {...common} />}
    </View>
  );
}
