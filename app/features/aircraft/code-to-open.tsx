import { useEffect, useState } from "react";
import { View } from "react-native";
import Svg, { Path, Rect } from "react-native-svg";
import { saveTextFile } from "../../device/platform/pick-file";
import { Button } from "../../ui/input/button";
import { Heading, Text } from "../../ui/text";

/** Quiet zone around the code, in modules. Source: ISO/IEC 18004, quiet zone of four (from memory). */
const QUIET = 4;

interface Code {
  size: number;
  path: string;
}

/** Modules as one path of unit squares. */
async function codeOf(text: string): Promise<Code> {
  const { create } = await import("qrcode");
  const { modules } = create(text, { errorCorrectionLevel: "M" });
  const squares: string[] = [];
  for (let y = 0; y < modules.size; y++)
    for (let x = 0; x < modules.size; x++)
      if (modules.get(y, x)) squares.push(`M${x + QUIET} ${y + QUIET}h1v1h-1z`);
  return { size: modules.size + 2 * QUIET, path: squares.join("") };
}

const svgFile = ({ size, path }: Code) =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${size} ${size}"><rect width="${size}" height="${size}" fill="#fff"/><path d="${path}"/></svg>`;

/** QR code for a key tag or document folder that opens this aircraft. Dark on light in night colours too, or scanners fail. */
export function CodeToOpen({ registration }: { registration: string }) {
  const [shown, setShown] = useState(false);
  const [code, setCode] = useState<Code | "failed">();
  const origin = typeof window === "undefined" ? "" : window.location.origin;
  const address = `${origin}/aircraft/${registration}`;
  useEffect(() => {
    if (!shown) return;
    let gone = false;
    codeOf(address).then(
      (made) => !gone && setCode(made),
      () => !gone && setCode("failed"),
    );
    return () => {
      gone = true;
    };
  }, [shown, address]);
  return (
    <View className="gap-2">
      <View className="flex-row items-center justify-between gap-3">
        <Heading className="text-lg">QR code for the key tag</Heading>
        <Button
          tone="bare"
          textClassName="text-base"
          pressed={shown}
          onPress={() => setShown(!shown)}
          testID="show-code"
        >
          {shown ? "Hide" : "Show"}
        </Button>
      </View>
      {shown && code === "failed" && (
        <Text role="alert">The QR code could not be created. Use this address instead: {address}</Text>
      )}
      {shown && code && code !== "failed" && (
        <View className="flex-row flex-wrap items-center gap-4">
          <View
            role="img"
            aria-label={`QR code that opens ${address}`}
            testID="code"
            className="h-[168px] w-[168px]"
          >
            <Svg width="100%" height="100%" viewBox={`0 0 ${code.size} ${code.size}`}>
              <Rect width={code.size} height={code.size} fill="#FFFFFF" />
              <Path d={code.path} fill="#000000" />
            </Svg>
          </View>
          <View className="shrink gap-2">
            <Text className="text-sm">Scan the code to open {address}</Text>
            <Button
              textClassName="text-base"
              onPress={() =>
                saveTextFile(`${registration.toLowerCase()}-code.svg`, svgFile(code), "image/svg+xml")
              }
            >
              Save to print
            </Button>
          </View>
        </View>
      )}
    </View>
  );
}
