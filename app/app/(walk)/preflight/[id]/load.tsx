import { walkPage } from "../../../../features/walk-pages/walk-page";

export default walkPage("LoadTodayScreen");
