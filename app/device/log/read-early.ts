import { readEarly } from "./remembered";

readEarly();
