import { planPage } from "../../features/preflight-pages/preflight-page";

export default planPage();
