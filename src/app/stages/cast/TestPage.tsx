import { useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { type Result, refused, success } from '../../../core/base/result';
import { AS_TEXT, isFontTag } from '../../../core/features/setting';
import type { Project } from '../../../core/project/model';
import type { Setting } from '../../../core/project/setting';
import type { CastFile } from '../../../workers/files';
import { useSettingChoices } from '../../state/settingChoices';
import { Check, Pick, Slide } from '../../ui/controls';
import { Choice } from '../../ui/parts';
import { SettingMenu } from '../../ui/SettingMenu';
import { Proof } from './Proof';
import { placeSettings, TestAxes, type UserPlace } from './TestAxes';

const SIZES = [12, 14, 16, 18, 24, 32, 48, 72, 96];
/** More files than this stand in a list. */
const MOST_IN_ROW = 4;
let loads = 0;

/** Text set by the browser with the very bytes of a cast file, loaded as any page would load them. */
export function TestPage({ files, project }: { files: readonly CastFile[]; project: Project }) {
  const text = project.texts.galley;
  const [at, setAt] = useState<UserPlace>({});
  const [fileName, setFileName] = useState(files[files.length - 1]!.fileName);
  const [sample, setSample] = useState(text);
  const [size, setSize] = useState(48);
  const [kerning, setKerning] = useState(true);
  const [setting, setSetting] = useState<Setting>(AS_TEXT);
  // A page cannot choose the script: the browser takes that of the letters.
  const choices = { ...useSettingChoices(), scripts: [] };
  const [loaded, setLoaded] = useState<Result<string> | undefined>();
  const file = files.find((f) => f.fileName === fileName) ?? files[0]!;

  useEffect(() => {
    const family = `wendril-cast-${++loads}`;
    const face = new FontFace(family, file.bytes.slice().buffer);
    let left = false;
    setLoaded(undefined);
    face.load().then(
      () => {
        if (left) return;
        document.fonts.add(face);
        setLoaded(success(family));
      },
      () => !left && setLoaded(refused('The browser refused this font file.', { file: file.fileName })),
    );
    return () => {
      left = true;
      document.fonts.delete(face);
    };
  }, [file]);

  // As tall as its text, whatever is typed and however large.
  const area = useRef<HTMLTextAreaElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: text, size, face, kerning and features change the height.
  useLayoutEffect(() => {
    if (!area.current) return;
    area.current.style.height = 'auto';
    area.current.style.height = `${area.current.scrollHeight}px`;
  }, [sample, size, loaded, kerning, setting]);

  const lacking = useMemo(() => {
    const has = new Set(file.codePoints);
    return [...new Set(sample)].filter((c) => c.trim() !== '' && !has.has(c.codePointAt(0)!));
  }, [file, sample]);
  const family = loaded?.ok ? loaded.value : undefined;
  const { features, language, direction } = setting;
  const varies = 'variable' in file.thing;
  const byTag = language !== undefined && isFontTag(language);
  const style = {
    fontFamily: family ? `"${family}"` : undefined,
    fontKerning: kerning ? 'normal' : 'none',
    fontFeatureSettings: Object.entries(features)
      .map(([tag, value]) => `"${tag}" ${value}`)
      .join(', '),
    ...(varies && { fontVariationSettings: placeSettings(project.axes, at) }),
    ...(byTag && { fontLanguageOverride: `"${language}"` }),
  } as const;
  const written = { lang: byTag ? undefined : language, dir: direction };
  return (
    <section aria-label="Test page" className="mb-6">
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <h2 className="text-[16px] font-semibold">Test page</h2>
        {files.length > MOST_IN_ROW ? (
          <Pick
            label="Font file"
            className="w-72"
            value={file.fileName}
            options={files.map((f) => ({ value: f.fileName, text: f.fileName }))}
            onChange={setFileName}
          />
        ) : (
          <Choice
            label="Font file"
            value={file.fileName}
            options={files.map((f) => ({
              value: f.fileName,
              text: files.some((o) => o !== f && o.format === f.format) ? f.fileName : `.${f.format}`,
            }))}
            onChange={setFileName}
          />
        )}
        <span className="flex items-center gap-2 text-quiet">
          <Slide label="Size" min={10} max={160} value={size} onChange={setSize} />
          {size} px
        </span>
        <Check label="kerning" checked={kerning} onChange={setKerning} />
        <SettingMenu of="the test page" setting={setting} onChange={setSetting} choices={choices} />
      </div>
      <Proof file={file} files={files} project={project} text={sample} />
      {varies && <TestAxes project={project} at={at} onChange={setAt} />}
      {loaded && !loaded.ok && (
        <p role="alert" className="text-brick">
          {loaded.reason}
        </p>
      )}
      {lacking.length > 0 && (
        <p className="mb-2 text-marigold" data-testid="lacking">
          ▲ Not in this font, set in another one below: <span className="text-ink">{lacking.join(' ')}</span>
        </p>
      )}
      {family && (
        <div data-testid="test-page" data-family={family} className="rounded-xl border border-line bg-panel p-5">
          <textarea
            aria-label="Text of the test page"
            {...written}
            ref={area}
            rows={1}
            spellCheck={false}
            value={sample}
            onChange={(e) => setSample(e.target.value)}
            className="mb-4 w-full resize-none overflow-hidden bg-transparent py-[0.1em] leading-[1.25] outline-none"
            style={{ ...style, fontSize: size }}
          />
          <div className="grid grid-cols-[46px_minmax(0,1fr)] items-baseline gap-y-1 border-t border-line pt-3">
            {SIZES.map((s) => (
              <div key={s} className="contents">
                <span className="text-[12px] text-quiet">{s}</span>
                <span
                  {...written}
                  className="overflow-x-clip whitespace-nowrap"
                  style={{ ...style, fontSize: s, lineHeight: 1.2 }}
                >
                  <Marked text={sample} lacking={lacking} />
                </span>
              </div>
            ))}
          </div>
        </div>
      )}
    </section>
  );
}

/** A text in which characters that the font lacks are marked. */
function Marked({ text, lacking }: { text: string; lacking: readonly string[] }) {
  if (lacking.length === 0) return text;
  const parts = [...text].reduce<{ text: string; marked: boolean }[]>((out, c) => {
    const marked = lacking.includes(c);
    const last = out[out.length - 1];
    if (last && last.marked === marked) last.text += c;
    else out.push({ text: c, marked });
    return out;
  }, []);
  return parts.map((p, i) =>
    p.marked ? (
      // biome-ignore lint/suspicious/noArrayIndexKey: a stretch is its place in the text.
      <mark key={i} className="bg-marigold-tint text-quiet" title="Not in this font">
        {p.text}
      </mark>
    ) : (
      p.text
    ),
  );
}
