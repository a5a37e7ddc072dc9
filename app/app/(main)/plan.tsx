import { planPage } from "../../features/preflight-routes/preflight-page";

export default planPage();
