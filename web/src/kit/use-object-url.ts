import { useLayoutEffect, useState } from 'react';

/** An address for something that this page made, as long as it is shown. */
export function useObjectUrl(blob: Blob | null): string | null {
  const [url, setUrl] = useState<string | null>(null);
  useLayoutEffect(() => {
    const made = blob && URL.createObjectURL(blob);
    setUrl(made);
    return () => {
      if (made) URL.revokeObjectURL(made);
    };
  }, [blob]);
  return url;
}
