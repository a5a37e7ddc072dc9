import { walkPage } from "../../../../features/preflight-pages/preflight-page";

export default walkPage("LoadTodayScreen");
