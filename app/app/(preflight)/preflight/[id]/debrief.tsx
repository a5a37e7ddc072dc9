import { preflightPage } from "../../../../features/preflight-routes/preflight-page";

export default preflightPage("DebriefScreen");
