import { DeviceScreen } from "../../features/sync/device-screen";

export default function Device() {
  return <DeviceScreen />;
}
