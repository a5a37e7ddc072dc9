import { router } from "expo-router";
import type { ReactNode } from "react";
import { Screen } from "../../ui/frame/screen";
import { Button } from "../../ui/input/button";
import { PageHead } from "../../ui/page-head";
import { Text } from "../../ui/text";

/** Placeholder for something missing: what is missing, what that means, and a way on. */
export function PageNotFound({
  head,
  title,
  children,
}: {
  head: string;
  title: string;
  children?: ReactNode;
}) {
  return (
    <Screen
      actions={
        <Button tone="primary" className="min-h-16" testID="primary" onPress={() => router.replace("/")}>
          Go to Aircraft
        </Button>
      }
    >
      <PageHead className="mt-8 text-2xl" title={title}>
        {head}
      </PageHead>
      {children && <Text className="mt-2">{children}</Text>}
    </Screen>
  );
}
