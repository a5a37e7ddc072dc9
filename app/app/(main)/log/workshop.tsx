import { WorkshopScreen } from "../../../features/airworthiness/workshop-screen";

export default WorkshopScreen;
