import { NoSuchPage } from "../features/today/no-such-page";

export default function NotFound() {
  return <NoSuchPage />;
}
