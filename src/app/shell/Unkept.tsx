import { useBench } from '../state/bench';
import { useKeeping } from '../state/keeping';
import { saveToFile } from '../state/projectFiles';
import { Button } from '../ui/parts';

/** Says that nothing outlasts this tab, with the way out, where the browser gives no storage. */
export function Unkept() {
  const keeps = useKeeping((s) => s.keeps);
  const project = useBench((s) => s.settled);
  if (keeps) return null;
  return (
    <p role="status" className="flex flex-wrap items-center gap-x-3 bg-marigold-tint px-4 py-2 text-marigold">
      <span>
        This window gives Wendril no storage (private, or switched off). All works until it is closed or loaded anew;
        what is to last goes to a file.
      </span>
      {project && <Button onClick={() => void saveToFile(project)}>Save the project to a file</Button>}
    </p>
  );
}
