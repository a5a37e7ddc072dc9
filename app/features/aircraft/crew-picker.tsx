import { View } from "react-native";
import { Button } from "../../ui/input/button";
import { Heading } from "../../ui/text";

/** Selects the person using this device. */
export function CrewPicker({
  crew,
  crewId,
  onPick,
}: {
  crew: readonly { id: string; name: string; role: string }[];
  crewId: string | null;
  onPick: (id: string) => void;
}) {
  return (
    <View className="gap-2" testID="who-flies">
      <Heading className="text-lg text-deck-ink">Who is flying?</Heading>
      {crew.map((member) => (
        <Button
          key={member.id}
          tone={member.id === crewId ? "primary" : "deck"}
          onPress={() => onPick(member.id)}
        >
          {`${member.name}, ${member.role}`}
        </Button>
      ))}
    </View>
  );
}
