import { type Href, router } from "expo-router";

/** Goes back, or to the parent page if this page was opened by a link. */
export function goBack(parent: string): void {
  if (router.canGoBack()) router.back();
  else router.replace(parent as Href);
}
