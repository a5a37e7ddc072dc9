import { View } from "react-native";
import { Alert } from "../../../ui/alert";
import { Button } from "../../../ui/input/button";

interface Act {
  words: string;
  onPress: () => void;
  testID?: string;
}

const pressed = ({ onPress, testID }: Act) => ({ onPress, ...(testID && { testID }) });

/** Actions on a result: clear a plug, repeat, emergency, continue. */
export function ResultActions({
  minute,
  again,
  onEmergency,
  onward,
}: {
  minute: Act | false;
  again: Act;
  onEmergency: () => void;
  onward: Act;
}) {
  return (
    <View className="gap-2">
      {minute && (
        <Button tone="primary" className="min-h-16" textClassName="text-xl" {...pressed(minute)}>
          {minute.words}
        </Button>
      )}
      <View className="flex-row gap-2">
        <Button tone="deck" className="min-h-16 flex-1 px-1" textClassName="text-base" {...pressed(again)}>
          {again.words}
        </Button>
        <Button
          tone="deck"
          className="min-h-16 flex-[1.3] border-4 px-0"
          textClassName="text-base"
          testID="emergency"
          onPress={onEmergency}
        >
          Emergency
        </Button>
        <Button
          tone={minute ? "deck" : "primary"}
          className="min-h-16 flex-[1.6] px-1"
          textClassName="text-xl"
          {...pressed(onward)}
        >
          {onward.words}
        </Button>
      </View>
    </View>
  );
}

/** Message after the maximum number of clearing attempts. */
export function NotCleared({ tries }: { tries: number }) {
  return (
    <Alert frame="heavy" className="mb-3" textClassName="font-strong text-lg">
      {`Not cleared in ${tries} tries: taxi back.`}
    </Alert>
  );
}
