import { askEarly } from "../early-fleet";
import { readEarly } from "./startup-data";

readEarly();
askEarly();
