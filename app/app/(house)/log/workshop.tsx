import { WorkshopScreen } from "../../../features/papers/workshop-screen";

export default WorkshopScreen;
