import { useEffect, useRef } from 'react';
import { useFieldGestures, type FieldGesture } from './field-gestures.ts';

interface ColourFieldProps {
  id?: string;
  label: string;
  /** `#rrggbb` */
  value: string;
  onChange: (value: string) => void;
}

/** A colour. Picking one is a gesture from the first shade tried to the closing of the picker. */
export function ColourField({ id, label, value, onChange }: ColourFieldProps) {
  const input = useRef<HTMLInputElement>(null);
  const gesture = useRef<FieldGesture | null>(null);
  const begin = useFieldGestures();
  useEffect(() => {
    const element = input.current!;
    const end = () => {
      gesture.current?.commit();
      gesture.current = null;
    };
    // React's onChange is the browser's `input`; its `change` says that the picker was closed.
    element.addEventListener('change', end);
    element.addEventListener('blur', end);
    return () => {
      element.removeEventListener('change', end);
      element.removeEventListener('blur', end);
      end();
    };
  }, []);
  return (
    <input
      ref={input}
      id={id}
      type="color"
      aria-label={label}
      value={value}
      onChange={(event) => {
        gesture.current ??= begin();
        if (gesture.current.open) onChange(event.target.value);
      }}
      className="h-7 w-12 cursor-pointer rounded-md border border-rule bg-raised"
    />
  );
}
