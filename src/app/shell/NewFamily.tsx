import { zodResolver } from '@hookform/resolvers/zod';
import { Controller, useForm } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { z } from 'zod';
import { storageSentence } from '../../browser/stores';
import { createProject } from '../../core/project/create';
import { parseGlyphList } from '../../core/project/glyphEdits';
import { storeProject } from '../state/library';
import { Radios } from '../ui/controls';
import { Modal } from '../ui/Modal';
import { Button, TextField } from '../ui/parts';

const SETS = [
  { key: 'letters', name: 'Letters, figures, punctuation', characters: () => range(0x21, 0x7e) },
  {
    key: 'europe',
    name: 'The languages of western and central Europe',
    characters: () => [
      ...range(0x21, 0x7e),
      ...range(0xa1, 0xff).filter((c) => c !== 0xad),
      ...range(0x100, 0x17e),
      0x2013,
      0x2014,
      0x2018,
      0x2019,
      0x201a,
      0x201c,
      0x201d,
      0x201e,
      0x2026,
      0x20ac,
    ],
  },
  { key: 'own', name: 'Only these characters', characters: () => [] },
] as const;

const range = (first: number, last: number): number[] => Array.from({ length: last - first + 1 }, (_, i) => first + i);

/** What the form asks for, and what it may be. */
const schema = z.object({
  family: z.string().trim().min(1, 'Give the family a name.'),
  style: z.string().trim(),
  unitsPerEm: z
    .string()
    .transform(Number)
    .pipe(
      z
        .number('Units per em must be a whole number from 16 to 16,384.')
        .int('Units per em must be a whole number from 16 to 16,384.')
        .min(16, 'Units per em must be a whole number from 16 to 16,384.')
        .max(16384, 'Units per em must be a whole number from 16 to 16,384.'),
    ),
  set: z.enum(SETS.map((s) => s.key)),
  own: z.string(),
});
type Asked = z.input<typeof schema>;
const USUAL: Asked = { family: '', style: 'Regular', unitsPerEm: '1000', set: 'letters', own: '' };

/** Starts a family: a name is enough, everything else has a sensible default. */
export function NewFamily({
  open,
  then = 'plan',
  onClose,
}: {
  open: boolean;
  /** What comes next: its plan, or a sheet of lettering. */
  then?: 'plan' | 'sheet';
  onClose: () => void;
}) {
  const navigate = useNavigate();
  const { register, handleSubmit, control, watch, setError, formState } = useForm<
    Asked,
    unknown,
    z.output<typeof schema>
  >({
    defaultValues: USUAL,
    resolver: zodResolver(schema),
  });
  const set = watch('set');
  const start = async (asked: z.output<typeof schema>) => {
    const { requests, faults } =
      asked.set === 'own' ? parseGlyphList(asked.own, 'letters') : { requests: [], faults: [] };
    const unread = [
      ...faults,
      ...requests.filter((r) => r.unicodes.length === 0).map((r) => `${r.name} is no character.`),
    ];
    if (unread.length > 0) return setError('root', { message: unread.join(' ') });
    const listed = requests.flatMap((r) => r.unicodes);
    const project = createProject({
      family: asked.family,
      masterName: asked.style || 'Regular',
      unitsPerEm: asked.unitsPerEm,
      characters: [...(SETS.find((s) => s.key === asked.set)?.characters() ?? []), ...listed],
      created: Math.floor(Date.now() / 1000),
    });
    try {
      await navigate(`/p/${await storeProject(project)}/${then === 'sheet' ? 'case?sheet' : 'plan'}`);
    } catch (error) {
      setError('root', { message: storageSentence(error) });
    }
  };
  const fault = Object.values(formState.errors)[0]?.message;

  return (
    <Modal open={open} onClose={onClose} title={then === 'sheet' ? 'A family from lettering' : 'New family'}>
      <form className="grid gap-3" onSubmit={(e) => void handleSubmit(start)(e)}>
        <label className="grid gap-1">
          <span className="text-quiet">Family name</span>
          <TextField autoFocus {...register('family')} />
        </label>
        <div className="grid grid-cols-2 gap-3">
          <label className="grid gap-1">
            <span className="text-quiet">First master</span>
            <TextField {...register('style')} />
          </label>
          <label className="grid gap-1">
            <span className="text-quiet">Units per em</span>
            <TextField inputMode="numeric" {...register('unitsPerEm')} />
          </label>
        </div>
        <fieldset className="grid gap-1">
          <legend className="mb-1 text-quiet">Glyphs to begin with (more can be added any time)</legend>
          <Controller
            control={control}
            name="set"
            render={({ field }) => (
              <Radios
                label="Glyphs to begin with"
                value={field.value}
                options={SETS.map((s) => ({ value: s.key, text: s.name }))}
                onChange={field.onChange}
              />
            )}
          />
          {set === 'own' && (
            <TextField aria-label="Characters to begin with" placeholder="hamburgefonts" {...register('own')} />
          )}
        </fieldset>
        {fault && (
          <p role="alert" className="text-brick">
            {fault}
          </p>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Not now</Button>
          <Button kind="primary" type="submit">
            Start
          </Button>
        </div>
      </form>
    </Modal>
  );
}
