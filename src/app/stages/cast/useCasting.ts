import { useMutation } from '@tanstack/react-query';
import { proxy } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import { castingOf } from '../../../core/casting/history';
import type { Format } from '../../../core/casting/outputs';
import { type CastThing, namesOfThing, thingKey } from '../../../core/casting/things';
import { noteCast } from '../../../core/project/changes';
import type { CastTerms, Project } from '../../../core/project/model';
import { partnerInstance, partnerMaster } from '../../../core/project/partner';
import { filesWorker } from '../../../workers/clients';
import type { CastFile } from '../../../workers/files';
import { runAside, useBench } from '../../state/bench';
import { bringPartner, usePartner } from '../../state/partner';

export type CastChoice = {
  formats: Format[];
  things: CastThing[];
  terms: CastTerms;
  /** The partner’s masters at the same places too. */
  partner: boolean;
};

/** What could not be made, and why. */
export type Failure = { what: string; reason: string };
/** Fonts are made side by side in at most so many workers. */
const MOST_WORKERS = 4;

/** What is cast of the partner: its masters and instances at the places of those chosen here, and itself as it varies. */
async function partnerThings(project: Project, things: readonly CastThing[]): Promise<CastThing[]> {
  const told = await bringPartner();
  if (!told) throw new Error(usePartner.getState().fault ?? 'The partner cannot be read.');
  const theirs = things.flatMap((thing): CastThing[] => {
    if ('variable' in thing) return told.masters.length > 1 ? [{ variable: 0 }] : [];
    if ('master' in thing) {
      const own = project.masters.find((m) => m.id === thing.master);
      return own ? [{ master: partnerMaster(project.axes, own.place, told).id }] : [];
    }
    const own = project.instances[thing.instance];
    const instance = own ? partnerInstance(project.axes, own.place, told) : -1;
    return instance < 0 ? [] : [{ instance }];
  });
  return theirs.filter((t, i) => theirs.findIndex((o) => thingKey(o) === thingKey(t)) === i);
}

/** What is told while fonts are made: how many files are done of how many, and what is being made now. */
export type CastProgress = { done: number; total: number; now: readonly string[] };

/** Casting in workers side by side, told file by file, stopped when the page is left; what fails does not keep the rest. */
export function useCasting(project: Project) {
  const [progress, setProgress] = useState<CastProgress | undefined>();
  const stop = useRef<() => void>(() => {});
  useEffect(() => () => stop.current(), []);

  const cast = useMutation({
    mutationFn: async (choice: CastChoice) => {
      const made = project;
      const began = Date.now();
      const workers = new Set<() => void>();
      let cancel: () => void = () => {};
      const cancelled = new Promise<never>((_, reject) => {
        cancel = () => reject(new Error('Casting was cancelled; nothing was made.'));
      });
      cancelled.catch(() => {});
      const end = () => {
        for (const leave of workers) leave();
        workers.clear();
      };
      stop.current = () => {
        end();
        cancel();
      };
      const begin = () => {
        const worker = filesWorker();
        workers.add(worker.stop);
        return worker.service;
      };
      try {
        return await Promise.race([cancelled, castAll(made, choice, { begin, tell: setProgress, began })]);
      } finally {
        end();
        setProgress(undefined);
      }
    },
  });
  return { cast, progress, cancel: () => stop.current() };
}

type Work = { begin: () => ReturnType<typeof filesWorker>['service']; tell: (p: CastProgress) => void; began: number };

async function castAll(made: Project, choice: CastChoice, { begin, tell, began }: Work) {
  const first = begin();
  const planned = await first.planned(made, choice);
  if (!planned.ok) throw new Error(planned.reason);
  const names = planned.value as readonly string[];
  const files: CastFile[] = [];
  const failed: Failure[] = [];
  const jobs = choice.things.map((thing) => ({ thing, name: namesOfThing(made, thing)?.fileName ?? '' }));
  const now = new Map<string, string>();
  const say = () => tell({ done: files.length, total: names.length, now: [...now.values()] });
  let next = 0;
  const work = async (service: ReturnType<Work['begin']>) => {
    await service.keep(made);
    for (let i = next++; i < jobs.length; i = next++) {
      const { thing, name } = jobs[i]!;
      now.set(name, name);
      say();
      const told = (done: number, total: number, what: string) => {
        if (done < total) now.set(name, what);
        say();
      };
      const result = await service.castKept({ ...choice, things: [thing] }, proxy(told));
      now.delete(name);
      if (result.ok) files.push(...(result.value as CastFile[]));
      else failed.push({ what: name, reason: result.reason });
      say();
    }
  };
  const count = Math.max(1, Math.min(MOST_WORKERS, navigator.hardwareConcurrency || 1, jobs.length));
  await Promise.all(Array.from({ length: count }, (_, i) => work(i === 0 ? first : begin())));
  files.sort((a, b) => names.indexOf(a.fileName) - names.indexOf(b.fileName));
  if (files.length === 0 && failed.length > 0) throw new Error(failed[0]!.reason);
  const { partner } = made.settings;
  if (choice.partner && partner) {
    const theirs = { ...choice, things: await partnerThings(made, choice.things) };
    const own = files.length;
    const more = await first.castStored(
      partner.id,
      theirs,
      proxy((done: number, total: number, what: string) => tell({ done: own + done, total: own + total, now: [what] })),
    );
    if (!more.ok) throw new Error(`${partner.name}: ${more.reason}`);
    const same = (more.value as CastFile[]).find((f) => files.some((o) => o.fileName === f.fileName));
    if (same)
      throw new Error(
        `${partner.name} would make ${same.fileName} too; one of the two needs another family or style name.`,
      );
    files.push(...(more.value as CastFile[]));
  }
  const print = await first.fingerprintKept();
  const isSame = useBench.getState().settled === made;
  runAside((p) => noteCast(p, { at: began, casting: castingOf(made, files, began), print }));
  // The note of the cast is no change that makes the files old.
  const from = isSame ? (useBench.getState().settled ?? made) : made;
  return { files, failed, from };
}
