import type { CsvFault, Receipt } from "@cravix/contract/client";
import { useState } from "react";
import { View } from "react-native";
import { pickTextFile } from "../../device/platform/pick-file";
import { Button } from "../../ui/input/button";
import { CsvFaults, ReceiptCard, Trouble, toUplift, type WayProps } from "./receipt-parts";

/** A file of the pump as read: its receipts of this aircraft, and its faults. */
interface ReadFile {
  name: string;
  receipts: Receipt[];
  faults: CsvFault[];
}

/** Uplifts from a file of the pump. */
export function ReceiptsFile({ tank, registration, onUplift }: WayProps) {
  const [read, setRead] = useState<ReadFile>();
  const pick = async () => {
    const file = await pickTextFile(".csv,text/csv");
    if (!file) return;
    const { readReceiptCsv } = await import("@cravix/contract/logs");
    const { receipts, faults } = readReceiptCsv(file.text);
    setRead({
      name: file.name,
      faults,
      receipts: receipts.filter((one) => one.registration === "" || one.registration === registration),
    });
  };
  return (
    <View className="gap-2">
      <Button className="min-h-16" testID="pick-receipts" onPress={() => void pick()}>
        Choose the pump's file
      </Button>
      {read && <CsvFaults name={read.name} faults={read.faults} />}
      {read && read.receipts.length === 0 && read.faults.length === 0 && (
        <Trouble>{`There is no receipt for ${registration} in ${read.name}.`}</Trouble>
      )}
      {read?.receipts.map((receipt) => (
        <View key={`${receipt.receipt}${receipt.at}${receipt.amount}`} className="gap-2">
          <ReceiptCard receipt={receipt} />
          <Button onPress={() => onUplift(toUplift(receipt, tank.id, "file"))}>Log this receipt</Button>
        </View>
      ))}
    </View>
  );
}
