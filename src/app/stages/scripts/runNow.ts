import { say, useBench } from '../../state/bench';
import { useCaseBench } from '../../state/chosen';
import { scripter } from '../../state/followers';
import { takeMade } from '../../state/steps';
import { bringDrafts, useScriptsBench } from './sheets';

/** So long a script that is run by its key may take, in seconds. */
const SECONDS = 20;

/** Runs the script of the project that has a key, on what is chosen, or all where only one glyph is at hand; values as given last. */
export async function runByKey(key: number): Promise<void> {
  const { settled: project, projectId } = useBench.getState();
  const script = project?.scripts.find((s) => s.key === key);
  if (!project || !projectId || !script) return;
  const { chosen } = useCaseBench.getState();
  const terms = {
    chosen: project.glyphOrder.filter((id) => chosen.size < 2 || chosen.has(id)),
    masters: project.masters.map((m) => m.id),
    given: {},
  };
  try {
    // What was given last is known once the scripts of the project were brought, in this stage or here.
    await bringDrafts(projectId);
    const service = await scripter.synced();
    const asked = await service.askedBy(script.text, terms);
    const given = Object.fromEntries(
      Object.entries(useScriptsBench.getState().given[script.id] ?? {}).filter(([k]) => Object.hasOwn(asked, k)),
    );
    const ran = await service.run({ ...script, terms: { ...terms, given }, seconds: SECONDS });
    if (!ran.ok) say(`${script.name}${ran.line === undefined ? '' : `, line ${ran.line}`}: ${ran.reason}`);
    else if (ran.value.steps.length === 0) say(`${script.name} changes nothing.`);
    else if (takeMade(project, ran, 'run it again.')) say(ran.value.sentence);
  } catch (error) {
    say((error as Error).message);
  }
}
