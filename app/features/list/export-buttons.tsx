import type { AircraftBundle } from "@cravix/contract/client";
import { listMarkdown } from "@cravix/contract/list-paper";
import type { ComposedList } from "@cravix/core/checklist/list/compose-list";
import { useState } from "react";
import { View } from "react-native";
import { api, ProblemError } from "../../device/api";
import { saveBlob, saveTextFile } from "../../device/platform/pick-file";
import { Button } from "../../ui/input/button";
import { Text } from "../../ui/text";

/** Exports the checklist as PDF, CSV and Markdown, and the aircraft's files. */
export function ExportButtons({ list, bundle }: { list: ComposedList; bundle: AircraftBundle }) {
  const [message, setMessage] = useState("");
  const name = `${list.registration.toLowerCase()}-list`;
  const pdf = async () => {
    try {
      saveBlob(`${name}.pdf`, await api.listPdf(list));
      setMessage("");
    } catch (error) {
      setMessage(
        error instanceof ProblemError
          ? error.message
          : "The server makes the printable page and cannot be reached. “Text” works without it.",
      );
    }
  };
  const csv = async () => {
    const { listCsv } = await import("@cravix/contract/logs");
    saveTextFile(`${name}.csv`, listCsv(list), "text/csv");
  };
  const json = () => {
    saveTextFile(`type-${bundle.type.id}.json`, JSON.stringify(bundle.type, null, 2));
    saveTextFile(
      `aircraft-${list.registration.toLowerCase()}.json`,
      JSON.stringify(bundle.aircraft, null, 2),
    );
  };
  return (
    <View className="gap-1">
      {message !== "" && (
        <Text role="alert" className="font-mid text-sm text-deck-ink">
          {message}
        </Text>
      )}
      <View className="flex-row gap-2">
        {(
          [
            ["Print", "Save to print", pdf],
            ["CSV", "Save as CSV", csv],
            ["Text", "Save as text", () => saveTextFile(`${name}.md`, listMarkdown(list), "text/markdown")],
            ["Files", "Save the aircraft files", json],
          ] as const
        ).map(([words, label, save]) => (
          <Button
            key={words}
            tone="deck"
            className="flex-1 px-1"
            textClassName="text-base"
            label={label}
            onPress={() => void save()}
          >
            {words}
          </Button>
        ))}
      </View>
    </View>
  );
}
