import { PeopleScreen } from "../../features/people/people-screen";

export default function People() {
  return <PeopleScreen />;
}
