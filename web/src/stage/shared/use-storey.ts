import { OUTSIDE, type Survey } from '@eskovan/core/survey';
import { useWorkbench, workbench } from '../../desk/workbench.ts';

/** The storey shown in plans: the chosen one, else the largest under cover (where people live). */
export function useStorey(survey: Survey): [number, (index: number) => void] {
  const chosen = useWorkbench((state) => state.storey);
  const count = survey.storeys.length;
  const first = survey.storeys[0]?.name === OUTSIDE && count > 1 ? 1 : 0;
  return [chosen >= 0 && chosen < count ? chosen : first, (storey) => workbench.set({ storey })];
}
