import { isRefused, type Result, refused, success } from '../core/base/result';
import type { Project } from '../core/project/model';

/** Another project of this browser, read from its storage here and not on the page. Looked at only. */
export async function storedProject(id: string): Promise<Result<Project>> {
  const { recordsOf } = await import('../browser/stores');
  const found = await recordsOf(id).open();
  if (!found) return refused('It is not among the projects of this browser.');
  return isRefused(found) ? found : success(found.project);
}
