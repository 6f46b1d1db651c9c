import { useMutation } from '@tanstack/react-query';
import { proxy } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { Format } from '../../../core/casting/outputs';
import { type CastThing, thingKey } from '../../../core/casting/things';
import { noteCast } from '../../../core/project/changes';
import type { Project } from '../../../core/project/model';
import { partnerInstance, partnerMaster } from '../../../core/project/partner';
import { filesWorker } from '../../../workers/clients';
import type { CastFile } from '../../../workers/files';
import { runAside, useBench } from '../../state/bench';
import { bringPartner, usePartner } from '../../state/partner';

export type CastChoice = {
  formats: Format[];
  things: CastThing[];
  keepOverlaps: boolean;
  blanks: boolean;
  /** The partner’s masters at the same places too. */
  partner: boolean;
};

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

/** Casting in a worker of its own, told as it goes, stopped when the page is left. */
export function useCasting(project: Project) {
  const [progress, setProgress] = useState<string | undefined>();
  const stop = useRef<() => void>(() => {});
  useEffect(() => () => stop.current(), []);

  const cast = useMutation({
    mutationFn: async (choice: CastChoice) => {
      const made = project;
      const began = Date.now();
      const { service, stop: end } = filesWorker();
      let cancel: () => void = () => {};
      const cancelled = new Promise<never>((_, reject) => {
        cancel = () => reject(new Error('Casting was cancelled; nothing was made.'));
      });
      stop.current = () => {
        end();
        cancel();
      };
      try {
        const tell = (done: number, total: number, now: string) =>
          setProgress(total === done ? undefined : `${done + 1} of ${total}: ${now}`);
        const result = await Promise.race([service.cast(made, choice, proxy(tell)), cancelled]);
        if (!result.ok) throw new Error(result.reason);
        const files = [...(result.value as CastFile[])];
        const { partner } = made.settings;
        if (choice.partner && partner) {
          const theirs = { ...choice, things: await partnerThings(made, choice.things) };
          const more = await Promise.race([service.castStored(partner.id, theirs, proxy(tell)), cancelled]);
          if (!more.ok) throw new Error(`${partner.name}: ${more.reason}`);
          const same = (more.value as CastFile[]).find((f) => files.some((o) => o.fileName === f.fileName));
          if (same)
            throw new Error(
              `${partner.name} would make ${same.fileName} too; one of the two needs another family or style name.`,
            );
          files.push(...(more.value as CastFile[]));
        }
        const isSame = useBench.getState().settled === made;
        runAside((p) => noteCast(p, { at: began }));
        // The note of the cast is no change that makes the files old.
        const from = isSame ? (useBench.getState().settled ?? made) : made;
        return { files, from };
      } finally {
        end();
        setProgress(undefined);
      }
    },
  });
  return { cast, progress, cancel: () => stop.current() };
}
