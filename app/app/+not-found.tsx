import { NoSuchPage } from "../features/shell/no-such-page";

export default function NotFound() {
  return <NoSuchPage />;
}
