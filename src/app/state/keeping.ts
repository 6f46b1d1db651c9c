import { create } from 'zustand';
import { keepsWhatIsStored } from '../../browser/stores';

/** Does this browser keep what is stored when the tab is closed? Taken for granted until it is known otherwise. */
export const useKeeping = create<{ keeps: boolean }>(() => ({ keeps: true }));

keepsWhatIsStored.then(
  (keeps) => useKeeping.setState({ keeps }),
  () => {},
);
