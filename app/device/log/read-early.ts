import { askEarly } from "../early-fleet";
import { readEarly } from "./remembered";

readEarly();
askEarly();
