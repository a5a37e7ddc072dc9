import { aircraftPage } from "../../../../features/preflight-pages/preflight-page";

export default aircraftPage("DepartureScreen");
