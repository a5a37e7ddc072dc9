import { AircraftScreen } from "../../features/aircraft/aircraft-screen";

export default function Aircraft() {
  return <AircraftScreen />;
}
