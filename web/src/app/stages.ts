/** The stages of a commission, in the order in which people work. */
export const STAGES = [
  { path: 'model', label: 'Model' },
  { path: 'views', label: 'Views' },
  { path: 'moves', label: 'Moves' },
  { path: 'reel', label: 'Reel' },
  { path: 'renders', label: 'Renders' },
  { path: 'review', label: 'Review' },
] as const;
