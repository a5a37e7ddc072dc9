import { DeviceScreen } from "../../features/this-device/device-screen";

export default function Device() {
  return <DeviceScreen />;
}
