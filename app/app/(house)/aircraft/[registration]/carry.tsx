import { aircraftPage } from "../../../../features/walk-pages/walk-page";

export default aircraftPage("CarryScreen");
