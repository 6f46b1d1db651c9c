import { NumberField, Section } from '../../../ui/parts';
import { setTypedSize, useDrawBench } from '../drawBench';

/** The size that a click with the oval or the box draws. */
export function SizeSection({ title }: { title: string }) {
  const size = useDrawBench((s) => s.typedSize);
  const within = (v: number) => Math.max(1, Math.min(10000, v));
  return (
    <Section title={`${title} of a size`}>
      <div className="mb-1 grid gap-1.5">
        <NumberField
          label="Width"
          value={size.width}
          onChange={(width) => setTypedSize({ ...size, width: within(width) })}
        />
        <NumberField
          label="Height"
          value={size.height}
          onChange={(height) => setTypedSize({ ...size, height: within(height) })}
        />
      </div>
      <p className="text-[12.5px] text-quiet">A click on the sheet puts one there; a drag draws any size.</p>
    </Section>
  );
}
