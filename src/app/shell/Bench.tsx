import { lazy, Suspense, useEffect, useMemo, useState } from 'react';
import { Link, Navigate, useLocation, useNavigate, useNavigationType, useParams, useSearchParams } from 'react-router';
import { Toaster, toast } from 'sonner';
import { setPartner } from '../../core/project/partner';
import { glyphNamed } from '../../core/project/queries';
import { commandsIn } from '../commands/all';
import { Galley } from '../galley/Galley';
import { useScope } from '../keys/scopes';
import {
  chooseGlyph,
  chooseMaster,
  clearNotice,
  leaveWaypoint,
  runAside,
  savesFinished,
  useBench,
} from '../state/bench';
import { followCopies } from '../state/copies';
import { closeDialog, openDialog, useDialog } from '../state/dialogs';
import { isWorking } from '../state/far';
import { useKeeping } from '../state/keeping';
import { listProjects } from '../state/library';
import { lendNavigation } from '../state/navigation';
import { followPreflight } from '../state/preflight';
import { isStage, STAGES, type StageKey } from '../state/stages';
import { type Opening, useOpenProject } from '../state/useOpenProject';
import { Button } from '../ui/parts';
import { CommandPalette } from './CommandPalette';
import { CopiesDialog } from './CopiesDialog';
import { Damage, saveRecords } from './Damage';
import { DuplicateDialog } from './DuplicateDialog';
import { KeySheet } from './KeySheet';
import { NextStepStrip } from './NextStepStrip';
import { Rail } from './Rail';
import { TopBar } from './TopBar';
import { Unkept } from './Unkept';
import { LeavingGuard, StorageDialog } from './Unsaved';

const VIEWS: Record<StageKey, ReturnType<typeof lazy>> = {
  plan: lazy(() => import('../stages/plan/Plan')),
  case: lazy(() => import('../stages/case/Case')),
  draw: lazy(() => import('../stages/draw/Draw')),
  compose: lazy(() => import('../stages/compose/Compose')),
  fit: lazy(() => import('../stages/fit/Fit')),
  kern: lazy(() => import('../stages/kern/Kern')),
  features: lazy(() => import('../stages/features/Features')),
  masters: lazy(() => import('../stages/masters/Masters')),
  preflight: lazy(() => import('../stages/preflight/Preflight')),
  scripts: lazy(() => import('../stages/scripts/Scripts')),
  cast: lazy(() => import('../stages/cast/Cast')),
};

const EdgesDialog = lazy(() => import('../edges/EdgesDialog'));
const ReweightDialog = lazy(() => import('../reweight/ReweightDialog'));
const GuideDialog = lazy(() => import('./GuideDialog'));
const SheetDialog = lazy(async () => ({ default: (await import('../lettering/SheetDialog')).SheetDialog }));

/** The address carries the glyph, so that a link, a reload and the browser's Back come to it. */
function useGlyphInAddress(): void {
  const [search, setSearch] = useSearchParams();
  const { key } = useLocation();
  const came = useNavigationType();
  const glyph = useBench((s) => (s.glyph ? s.project?.glyphs[s.glyph]?.name : undefined));
  const [read, setRead] = useState<string>();
  const isNew = read === undefined || (came === 'POP' && read !== key);
  useEffect(() => {
    setRead(key);
    if (!isNew) return;
    const { project } = useBench.getState();
    const wanted = search.get('glyph');
    if (search.has('sheet')) openDialog('sheet');
    const found = project && wanted ? glyphNamed(project, wanted) : undefined;
    if (found) chooseGlyph(found.id);
    const master = search.get('master');
    if (project?.masters.some((m) => m.id === master)) chooseMaster(master!);
    const partner = search.get('partner');
    if (partner && project && !project.settings.partner) void bindPartner(partner);
  }, [isNew, key, search]);
  useEffect(() => {
    if (isNew || !glyph || search.get('glyph') === glyph) return;
    // Which script is wanted is read by its stage, once that has come.
    const script = search.get('script');
    setSearch({ glyph, ...(script && { script }) }, { replace: true });
  }, [isNew, glyph, search, setSearch]);
}

/** Who comes from a partner that says so finds the way back. */
async function bindPartner(id: string): Promise<void> {
  const entry = (await listProjects()).find((e) => e.id === id);
  if (entry) runAside((p) => setPartner(p, { partner: { id, name: entry.name } }));
}

/** Where the drawing of a waypoint can be worked on. */
const ON_WAYPOINTS: ReadonlySet<StageKey> = new Set(['draw', 'fit', 'masters']);

/** The frame around every stage: rail, top bar, workspace, galley. */
export function Bench() {
  const { projectId = '', stage } = useParams();
  // Another project is another bench: nothing of the one before is shown while it opens.
  return <BenchOf key={projectId} projectId={projectId} stage={stage} />;
}

function BenchOf({ projectId, stage }: { projectId: string; stage: string | undefined }) {
  const opening = useOpenProject(projectId);
  if (!isStage(stage)) return <Navigate to={`/p/${projectId}/draw`} replace />;
  if (opening.kind === 'fault') {
    return (
      <main className="mx-auto mt-[18vh] max-w-[520px] p-6">
        <h1 className="mb-2 text-[22px] font-semibold">This project cannot be shown</h1>
        <p className="mb-4">{opening.sentence}</p>
        <div className="flex gap-2">
          <Link to="/" className="rounded-lg bg-kelp px-4 py-2 text-on-kelp">
            To the start page
          </Link>
          {opening.exists && <Button onClick={() => void saveRecords(projectId)}>Save all its records</Button>}
        </div>
      </main>
    );
  }
  if (opening.kind === 'opening') return <p className="p-8 text-quiet">Opening the project…</p>;
  return <OpenBench stage={stage} projectId={projectId} opened={opening} />;
}

type OpenProps = { stage: StageKey; projectId: string; opened: Extract<Opening, { kind: 'open' }> };

function OpenBench({ stage, projectId, opened }: OpenProps) {
  const navigate = useNavigate();
  const title = useBench((s) => s.settled?.family.name ?? '');
  const readOnly = useBench((s) => s.readOnly);
  const notice = useBench((s) => s.notice);
  const sheetOpen = useDialog('sheet');
  const commands = useMemo(() => commandsIn(stage), [stage]);
  useScope(commands);
  useEffect(() => lendNavigation((to) => void navigate(to)), [navigate]);
  useGlyphInAddress();
  useEffect(() => closeDialog, []);
  useEffect(followPreflight, []);
  useEffect(followCopies, []);
  useEffect(() => {
    if (!ON_WAYPOINTS.has(stage)) leaveWaypoint();
  }, [stage]);

  useEffect(() => {
    document.title = `${title} — Wendril`;
  }, [title]);
  useEffect(() => {
    if (!notice) return;
    toast(notice, { id: 'notice', duration: 4000 });
    clearNotice();
  }, [notice]);
  useEffect(() => {
    const warn = (e: BeforeUnloadEvent) => {
      const { save, history } = useBench.getState();
      if (save.kind !== 'saved') void savesFinished();
      // Without storage all that was done goes with the tab.
      if (save.kind !== 'saved' || isWorking() || (!useKeeping.getState().keeps && history.last > 0))
        e.preventDefault();
    };
    window.addEventListener('beforeunload', warn);
    return () => window.removeEventListener('beforeunload', warn);
  }, []);

  useEffect(() => {
    performance.mark('project-shown');
  }, []);

  const View = VIEWS[stage];
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)] grid-rows-[44px_minmax(0,1fr)]">
      <TopBar />
      <div className="grid min-h-0 grid-cols-[84px_minmax(0,1fr)]">
        <Rail stage={stage} projectId={projectId} />
        <div className="flex min-h-0 min-w-0 flex-col">
          {readOnly && (
            <p role="status" className="bg-marigold-tint px-4 py-2 text-marigold">
              This project is open in another tab. You can look at it here; close the other tab to work on it in this
              one.
            </p>
          )}
          <Unkept />
          <Damage faults={opened.faults} damaged={opened.damaged} />
          <NextStepStrip key={projectId} stage={stage} />
          <main aria-labelledby="stage-title" className="min-h-0 flex-1">
            <h1 id="stage-title" className="sr-only">
              {STAGES.find((s) => s.key === stage)?.title}, {title}
            </h1>
            <Suspense fallback={<p className="p-6 text-quiet">Setting up…</p>}>
              <View />
            </Suspense>
          </main>
          <Galley stage={stage} />
        </div>
      </div>
      <CommandPalette open={useDialog('palette')} onClose={closeDialog} stage={stage} />
      <KeySheet open={useDialog('keys')} onClose={closeDialog} />
      {sheetOpen && (
        <Suspense>
          <SheetDialog open onClose={closeDialog} />
        </Suspense>
      )}
      <LeavingGuard />
      <DuplicateDialog />
      {useDialog('edges') && (
        <Suspense>
          <EdgesDialog />
        </Suspense>
      )}
      {useDialog('reweight') && (
        <Suspense>
          <ReweightDialog />
        </Suspense>
      )}
      {useDialog('guide') && (
        <Suspense>
          <GuideDialog stage={stage} />
        </Suspense>
      )}
      <CopiesDialog open={useDialog('copies')} onClose={closeDialog} />
      <StorageDialog open={useDialog('storage')} onClose={closeDialog} />
      {/* Above the galley and the foot of the sheet, where no tool and no number stands; hands go through it. */}
      <Toaster
        position="bottom-center"
        offset={150}
        style={{ fontFamily: 'inherit' }}
        toastOptions={{ className: 'pointer-events-none' }}
      />
    </div>
  );
}
