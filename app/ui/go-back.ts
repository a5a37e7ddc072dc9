import { type Href, router } from "expo-router";

/** Back where one came from; where this page was opened by a link, to the page that it belongs to. */
export function goBack(parent: string): void {
  if (router.canGoBack()) router.back();
  else router.replace(parent as Href);
}
