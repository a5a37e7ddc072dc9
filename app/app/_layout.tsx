import "../global.css";
import { Slot } from "expo-router";
import { AppFrame } from "../features/shell/app-frame";

export default function Layout() {
  return (
    <AppFrame>
      <Slot />
    </AppFrame>
  );
}
