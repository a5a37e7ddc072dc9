import { aircraftPage } from "../../../../features/preflight-routes/preflight-page";

export default aircraftPage("LoadingScreen");
