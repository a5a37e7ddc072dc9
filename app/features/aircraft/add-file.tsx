import type { FileFault } from "@cravix/contract/files";
import { useState } from "react";
import { View } from "react-native";
import { pickTextFile } from "../../device/platform/pick-file";
import { useSendFileMutation } from "../../store/server/records-api";
import { Button } from "../../ui/input/button";
import { Text } from "../../ui/text";

/** Adds an aircraft or type from a file; faults are shown with their path before anything is sent. */
export function AddFile({ onAdded }: { onAdded: () => void }) {
  const [sendFile] = useSendFileMutation();
  const [message, setMessage] = useState("");
  const [faults, setFaults] = useState<FileFault[]>([]);
  const add = async () => {
    const file = await pickTextFile(".json,application/json");
    if (!file) return;
    const { readFileText } = await import("@cravix/contract/schemas");
    const reading = readFileText(file.text);
    if ("faults" in reading) {
      setFaults(reading.faults);
      setMessage(`${file.name} is not valid. Nothing was changed.`);
      return;
    }
    const { error } = await sendFile({ text: file.text });
    if (error) {
      const refused = "reached" in error && error.reached;
      setFaults(refused ? (error.faults ?? []) : []);
      setMessage(
        refused && error.message
          ? error.message
          : "The server cannot be reached. Nothing was changed. Try again when you are online.",
      );
      return;
    }
    setFaults([]);
    setMessage(`${file.name} was added.`);
    onAdded();
  };
  return (
    <View className="mt-2 gap-2">
      <Button onPress={add} textClassName="text-base">
        Add an aircraft from a file
      </Button>
      {message !== "" && (
        <View
          role="alert"
          className={`rounded-lg px-3 py-2 ${faults.length > 0 ? "border-2 border-clay" : "bg-stone"}`}
          testID="file-message"
        >
          <Text className="font-mid">{message}</Text>
          {faults.slice(0, 12).map((fault) => (
            <Text key={`${fault.path}${fault.expected}`} className="text-sm">
              {fault.path ? `${fault.path}: ` : ""}
              {fault.expected}
            </Text>
          ))}
          {faults.length > 12 && <Text className="text-sm">and {faults.length - 12} more</Text>}
        </View>
      )}
    </View>
  );
}
