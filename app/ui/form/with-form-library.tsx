import { type ComponentType, Suspense } from "react";

/** A form that appears once the form library is here; the page around it stays. */
export function withFormLibrary<P extends object>(Form: ComponentType<P>) {
  return function LoadedForm(props: P) {
    return (
      <Suspense fallback={null}>
        <Form {...props} />
      </Suspense>
    );
  };
}
