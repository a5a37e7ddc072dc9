import { useEffect, useState } from "react";
import { pictureOf } from "../../device/photographs/stored-photos";

/** URL of a photo from this device or the server; null if neither has it, undefined while loading. */
export function usePicture(hash: string): string | null | undefined {
  const [url, setUrl] = useState<string | null>();
  useEffect(() => {
    let made: string | undefined;
    let left = false;
    pictureOf(hash).then(
      (blob) => {
        if (left) return;
        made = blob && URL.createObjectURL(blob);
        setUrl(made ?? null);
      },
      () => !left && setUrl(null),
    );
    return () => {
      left = true;
      if (made) URL.revokeObjectURL(made);
    };
  }, [hash]);
  return url;
}
