import { createContext, useContext } from 'react';

/** Many changes of one field that belong together: kept as one, or taken back. */
export interface FieldGesture {
  readonly open: boolean;
  commit(): void;
  cancel(): void;
}

/** Outside a project every change stands for itself. */
const alone = (): FieldGesture => ({ open: true, commit: () => {}, cancel: () => {} });

const FieldGestures = createContext<() => FieldGesture>(alone);
export const FieldGesturesProvider = FieldGestures.Provider;
/** Begins a gesture of whoever keeps what the fields change. */
export const useFieldGestures = () => useContext(FieldGestures);
