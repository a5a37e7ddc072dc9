import "../global.css";
import { Slot } from "expo-router";
import { AppFrame } from "../ui/app-frame";

export default function Layout() {
  return (
    <AppFrame>
      <Slot />
    </AppFrame>
  );
}
