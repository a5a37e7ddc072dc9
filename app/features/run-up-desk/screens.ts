export { ControlsScreen } from "./controls-screen";
export { RunUpScreen } from "./run-up-screen";
