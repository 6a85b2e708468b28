import { Button, Empty, Progress } from '../../kit/index.ts';
import { useSiteState, type SiteStep } from '../../site/site-state.ts';
import { retrySite } from '../../site/use-site-keeper.ts';

export const SITE_STEPS: Record<SiteStep, string> = {
  measure: 'Measuring storeys, rooms and plans',
  store: 'Keeping the plans',
  walkway: 'Finding where one can walk',
  light: 'Baking the light',
};

/** Said while the models of a project are being measured for the first time. */
export function SiteComing() {
  const working = useSiteState((state) => state.working);
  const error = useSiteState((state) => state.error);
  if (error)
    return (
      <Empty title="The models could not be measured" action={<Button onClick={retrySite}>Try again</Button>}>
        {error}
      </Empty>
    );
  return (
    <Empty title={working ? `${SITE_STEPS[working.step]}…` : 'Bringing the plan…'}>
      {working && <Progress label={SITE_STEPS[working.step]} fraction={working.fraction} />}
    </Empty>
  );
}
