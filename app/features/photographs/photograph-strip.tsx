import { MAX_PHOTOGRAPHS, type Photograph } from "@cravix/core/airworthiness/life/photograph";
import { useState } from "react";
import { Image, Pressable, View } from "react-native";
import { dropPicture } from "../../device/photographs/stored-photos";
import { savePicture } from "../../device/photographs/take-photo";
import { pickFile } from "../../device/platform/pick-file";
import { Alert } from "../../ui/alert";
import { Button } from "../../ui/input/button";
import { Text } from "../../ui/text";
import { usePicture } from "./use-picture";

const ANY_PICTURE = "image/*";

export interface PhotographsProps {
  photographs: readonly Photograph[];
  /** Absent: photos cannot be added. */
  onAdd?: ((photograph: Photograph) => void) | undefined;
  /** For photos not logged yet. */
  onRemove?: ((photograph: Photograph) => void) | undefined;
}

/** Photos of one discrepancy, enlarged on tap, with a button to add one. */
export function PhotographStrip({ photographs, onAdd, onRemove }: PhotographsProps) {
  const [large, setLarge] = useState<string>();
  const [problem, setProblem] = useState("");
  const [making, setMaking] = useState(false);
  const add = async () => {
    const file = await pickFile(ANY_PICTURE);
    if (!file) return;
    setMaking(true);
    setProblem("");
    try {
      const photograph = await savePicture(file);
      if (photographs.some((one) => one.photograph === photograph.photograph))
        setProblem("This photo is already added.");
      else onAdd?.(photograph);
    } catch (error) {
      setProblem((error as Error).message);
    } finally {
      setMaking(false);
    }
  };
  const shown = photographs.find(({ photograph }) => photograph === large);
  if (photographs.length === 0 && !onAdd) return null;
  return (
    <View className="gap-2" testID="photographs">
      {photographs.length > 0 && (
        <View className="flex-row flex-wrap gap-2">
          {photographs.map((one, i) => (
            <Thumbnail
              key={one.photograph}
              photograph={one}
              label={`Photo ${i + 1} of ${photographs.length}`}
              chosen={one.photograph === large}
              onPress={() => setLarge(one.photograph === large ? undefined : one.photograph)}
            />
          ))}
        </View>
      )}
      {shown && <Large photograph={shown} />}
      {shown && onRemove && (
        <Button
          className="self-start px-5"
          textClassName="text-base"
          onPress={() => {
            void dropPicture(shown.photograph);
            onRemove(shown);
            setLarge(undefined);
          }}
        >
          Remove photo
        </Button>
      )}
      {onAdd &&
        (photographs.length < MAX_PHOTOGRAPHS ? (
          <Button
            className="self-start px-5"
            textClassName="text-base"
            disabled={making}
            testID="add-photograph"
            onPress={() => void add()}
          >
            {making
              ? "Making the photo smaller …"
              : photographs.length === 0
                ? "Take a photo"
                : "Add another photo"}
          </Button>
        ) : (
          <Text className="text-sm text-voice">{`No more than ${MAX_PHOTOGRAPHS} photos.`}</Text>
        ))}
      {problem !== "" && <Alert>{problem}</Alert>}
    </View>
  );
}

const SIDE = 84;

function Thumbnail({
  photograph: { photograph },
  label,
  chosen,
  onPress,
}: {
  photograph: Photograph;
  label: string;
  chosen: boolean;
  onPress: () => void;
}) {
  const url = usePicture(photograph);
  return (
    <Pressable
      role="button"
      aria-label={label}
      aria-pressed={chosen}
      onPress={onPress}
      style={{ width: SIDE, height: SIDE }}
      className={`overflow-hidden rounded-xl border-2 ${chosen ? "border-ink" : "border-stone"}`}
    >
      {url ? (
        <Image
          source={{ uri: url }}
          style={{ width: "100%", height: "100%" }}
          resizeMode="cover"
          aria-label={label}
        />
      ) : (
        <View className="h-full items-center justify-center bg-stone px-1">
          <Text className="text-center text-xs">{url === null ? "not on this device" : "…"}</Text>
        </View>
      )}
    </Pressable>
  );
}

function Large({ photograph: { photograph, width, height } }: { photograph: Photograph }) {
  const url = usePicture(photograph);
  if (url === null)
    return (
      <Text className="text-voice">This photo is still on another device, or this device is offline.</Text>
    );
  return (
    <View
      className="w-full max-w-3xl overflow-hidden rounded-xl bg-stone"
      style={{ aspectRatio: width / height }}
    >
      {url && (
        <Image
          source={{ uri: url }}
          style={{ width: "100%", height: "100%" }}
          resizeMode="contain"
          aria-label="Large photo of the discrepancy"
        />
      )}
    </View>
  );
}
