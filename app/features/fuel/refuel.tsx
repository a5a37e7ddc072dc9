import type { CsvFault, Receipt } from "@cravix/contract/client";
import type { AircraftType } from "@cravix/core/aircraft/aircraft-type";
import type { EventData } from "@cravix/core/checklist/stream/events";
import { FUEL_UNITS, type FuelUnit, litresOfFuel } from "@cravix/core/fuel/grade/fuel-amount";
import { fuelDensity, fuelGrade } from "@cravix/core/fuel/grade/fuel-grades";
import { formatNumber } from "@cravix/core/units/format";
import { useState } from "react";
import { View } from "react-native";
import { api, ProblemError } from "../../device/api";
import { pickTextFile } from "../../device/platform/pick-file";
import { Button } from "../../ui/input/button";
import { Choice } from "../../ui/input/choice";
import { Keypad, pressKey } from "../../ui/input/keypad";
import { Stepper } from "../../ui/input/stepper";
import { TextField } from "../../ui/input/text-field";
import { Caution } from "../../ui/judgement-card";
import { Text } from "../../ui/text";

type Uplift = Omit<EventData["fuel.uplifted"], "registration">;

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
      {way === "By hand" && <Typed {...common} />}
      {way === "Load a file" && <FromFile {...common} />}
    </View>
  );
}

interface WayProps {
  registration: string;
  tank: NonNullable<AircraftType["fuel"]>["tanks"][number];
  grade: string;
  onUplift: (uplift: Uplift) => void;
}

const toUplift = (receipt: Receipt, tankId: string, from: Uplift["from"]): Uplift => ({
  tankId: receipt.tankId ?? tankId,
  amount: receipt.amount,
  unit: receipt.unit,
  grade: receipt.grade,
  ...(receipt.receipt && { receipt: receipt.receipt }),
  from,
});

function AtThePump({ registration, tank, grade, onUplift }: WayProps) {
  const [litres, setLitres] = useState(40);
  const [receipt, setReceipt] = useState<Receipt>();
  const [problem, setProblem] = useState("");
  const deliver = async () => {
    try {
      setProblem("");
      setReceipt(await api.deliver({ registration, tankId: tank.id, litres, grade }));
    } catch (error) {
      setProblem(
        error instanceof ProblemError
          ? [error.message, ...(error.problem.faults ?? []).map((f) => f.expected)].join(" ")
          : "No network: the pump cannot be reached. Enter the receipt by hand.",
      );
    }
  };
  if (receipt)
    return (
      <View className="gap-2">
        <ReceiptCard receipt={receipt} />
        {moreThanItHolds(receipt, tank) && <Trouble>{moreThanItHolds(receipt, tank) ?? ""}</Trouble>}
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
  return (
    <View className="gap-2">
      <Stepper
        text={`${litres} L`}
        step={5}
        unit="litres"
        testID="pump-litres"
        onStep={(by) => setLitres(Math.min(Math.floor(tank.capacityL), Math.max(5, litres + by)))}
      />
      <Button className="min-h-16" testID="deliver" onPress={() => void deliver()}>
        Start the pump
      </Button>
      {problem !== "" && <Trouble>{problem}</Trouble>}
      <Text className="text-sm text-voice">
        Simulated pump: the receipt may be wrong. The dipstick shows what is really in the tank.
      </Text>
    </View>
  );
}

/** Warning for an amount the tank cannot hold: probably another unit. */
function moreThanItHolds(
  { amount, unit, grade }: Pick<Receipt, "amount" | "unit" | "grade">,
  tank: WayProps["tank"],
): string | undefined {
  const litres = litresOfFuel(amount, unit, fuelDensity(grade));
  if (litres <= tank.capacityL + 0.5) return undefined;
  return `${formatNumber(litres)} L is more than the ${tank.name} holds (${formatNumber(tank.capacityL)} L). Check the unit.`;
}

function ReceiptCard({ receipt }: { receipt: Receipt }) {
  return (
    <View className="rounded-xl border-2 border-dashed border-ink px-4 py-3" testID="receipt">
      <Text className="text-sm text-voice">{`Receipt ${receipt.receipt || "without a number"}`}</Text>
      <Text className="font-strong text-2xl">{`${formatNumber(receipt.amount, 1)} ${receipt.unit}`}</Text>
      <Text>{`${fuelGrade(receipt.grade)?.name ?? receipt.grade}${receipt.tankId ? `, ${receipt.tankId}` : ""}`}</Text>
    </View>
  );
}

function Typed({ tank, grade, onUplift }: WayProps) {
  const [text, setText] = useState("");
  const [unit, setUnit] = useState<FuelUnit>("L");
  const [receipt, setReceipt] = useState("");
  const [tried, setTried] = useState(false);
  const amount = Number(text);
  const wrong =
    text === "" || !(amount > 0)
      ? "Enter the amount on the receipt."
      : amount > 5000
        ? "This is more than any light aircraft holds. Check the amount and the unit."
        : "";
  const tooMuch = wrong === "" ? moreThanItHolds({ amount, unit, grade }, tank) : undefined;
  const [warned, setWarned] = useState("");
  const log = () => {
    setTried(true);
    if (wrong) return;
    // Warned once; if confirmed it is logged as it is and compared with the dipstick.
    if (tooMuch && warned !== tooMuch) {
      setWarned(tooMuch);
      return;
    }
    onUplift({
      tankId: tank.id,
      amount,
      unit,
      grade,
      from: "typed",
      ...(receipt.trim() && { receipt: receipt.trim() }),
    });
  };
  return (
    <View className="gap-3">
      <Choice title="Unit on the receipt" options={FUEL_UNITS} value={unit} onChange={setUnit} />
      <TextField label="Receipt number" large value={receipt} onChange={setReceipt} maxLength={40} />
      <View className="gap-2 rounded-2xl bg-deck p-3">
        <Text
          className="text-center font-strong text-2xl text-deck-ink"
          testID="uplift-amount"
        >{`${text || "…"} ${unit}`}</Text>
        <Keypad
          decimals={1}
          negative={false}
          onKey={(key) => setText(pressKey(text, key, { decimals: 1, negative: false }))}
        />
        <Button tone="primary" className="min-h-16" testID="log-receipt" onPress={log}>
          Log it
        </Button>
      </View>
      {tried && wrong !== "" && <Trouble>{wrong}</Trouble>}
      {tooMuch && warned === tooMuch && (
        <Trouble>{`${tooMuch} If the receipt really says so, log it.`}</Trouble>
      )}
    </View>
  );
}

function FromFile({ tank, registration, onUplift }: WayProps) {
  const [receipts, setReceipts] = useState<Receipt[]>([]);
  const [faults, setFaults] = useState<CsvFault[]>([]);
  const [name, setName] = useState("");
  const pick = async () => {
    const file = await pickTextFile(".csv,text/csv");
    if (!file) return;
    const { readReceiptCsv } = await import("@cravix/contract/logs");
    const read = readReceiptCsv(file.text);
    setName(file.name);
    setFaults(read.faults);
    setReceipts(read.receipts.filter((r) => r.registration === "" || r.registration === registration));
  };
  return (
    <View className="gap-2">
      <Button className="min-h-16" testID="pick-receipts" onPress={() => void pick()}>
        Choose the pump's file
      </Button>
      <CsvFaults name={name} faults={faults} />
      {name !== "" && receipts.length === 0 && faults.length === 0 && (
        <Trouble>{`There is no receipt for ${registration} in ${name}.`}</Trouble>
      )}
      {receipts.map((receipt) => (
        <View key={`${receipt.receipt}${receipt.at}${receipt.amount}`} className="gap-2">
          <ReceiptCard receipt={receipt} />
          <Button onPress={() => onUplift(toUplift(receipt, tank.id, "file"))}>Log this receipt</Button>
        </View>
      ))}
    </View>
  );
}

/** Faults of a CSV file with line and column. */
export function CsvFaults({ name, faults }: { name: string; faults: CsvFault[] }) {
  if (faults.length === 0) return null;
  return (
    <View role="alert" className="rounded-lg border-2 border-clay px-3 py-2" testID="csv-faults">
      <Text className="font-mid text-clay">{`${name}: ${faults.length} ${faults.length === 1 ? "line" : "lines"} not imported.`}</Text>
      {faults.slice(0, 12).map((fault) => (
        <Text key={`${fault.row}${fault.column}${fault.expected}`} className="text-sm">
          {`Line ${fault.row}${fault.column ? `, ${fault.column}` : ""}: expected ${fault.expected}`}
        </Text>
      ))}
      {faults.length > 12 && <Text className="text-sm">and {faults.length - 12} more</Text>}
    </View>
  );
}

function Trouble({ children }: { children: string }) {
  return (
    <View role="alert" className="rounded-lg border-2 border-clay px-3 py-2" testID="trouble">
      <Text className="font-mid text-clay">{children}</Text>
    </View>
  );
}
