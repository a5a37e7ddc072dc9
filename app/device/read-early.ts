import { requestEarly } from "./early-fleet";
import { readEarly } from "./log/startup-data";

readEarly();
requestEarly();
