import { create } from 'zustand';

/** What Plan shows in its middle. */
export const PLAN_VIEWS = [
  { value: 'metrics', text: 'Metrics', title: 'Plan: metrics on the letters' },
  { value: 'masters', text: 'Masters', title: 'Plan: metrics of all masters side by side' },
  { value: 'languages', text: 'Languages', title: 'Plan: languages, what they lack, the next best step' },
  { value: 'sets', text: 'Sets and lists', title: 'Plan: sets of characters, and lists of one’s own' },
] as const;
export type PlanView = (typeof PLAN_VIEWS)[number]['value'];

export const usePlanView = create<{ view: PlanView }>(() => ({ view: 'metrics' }));
export const showInPlan = (view: PlanView): void => usePlanView.setState({ view });
