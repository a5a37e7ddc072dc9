import { WorkshopScreen } from "../../../features/maintenance/workshop-screen";

export default WorkshopScreen;
