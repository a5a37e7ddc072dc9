import { requestEarly } from "../early-fleet";
import { readEarly } from "./startup-data";

readEarly();
requestEarly();
