import { preflightPage } from "../../../../features/preflight-pages/preflight-page";

export default preflightPage("VerdictScreen");
