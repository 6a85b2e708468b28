/** note: a person may want it so; problem: nobody does. */
export type Severity = 'note' | 'problem';

/** Problems before notes, each as they came. */
export function problemsFirst<F extends { severity: Severity }>(findings: readonly F[]): F[] {
  const of = (wanted: Severity) => findings.filter(({ severity }) => severity === wanted);
  return [...of('problem'), ...of('note')];
}
