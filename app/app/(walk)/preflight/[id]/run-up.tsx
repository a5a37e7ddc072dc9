import { useLocalSearchParams } from "expo-router";
import { RunUpScreen } from "../../../../features/run-up-desk/run-up-screen";

export default function RunUp() {
  const { id, engine } = useLocalSearchParams<{ id: string; engine?: string }>();
  return <RunUpScreen id={id} {...(engine && { engine })} />;
}
