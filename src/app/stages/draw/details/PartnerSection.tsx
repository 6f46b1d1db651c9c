import { useEffect } from 'react';
import { useBench } from '../../../state/bench';
import { bringOutline, goToPartner, setPartnerInDraw, usePartner } from '../../../state/partner';
import { Check } from '../../../ui/controls';
import { Button, Section } from '../../../ui/parts';

/** The partner’s letter behind the drawing, and the way to it. */
export function PartnerSection() {
  const partner = useBench((s) => s.settled!.settings.partner);
  const { inDraw, fault, outline } = usePartner();
  const glyph = useBench((s) => s.glyph);
  const master = useBench((s) => s.master);
  useEffect(() => {
    // What is looked at decides what is brought.
    if (partner && inDraw && glyph && master) void bringOutline();
  }, [partner, inDraw, glyph, master]);
  if (!partner) return null;
  return (
    <Section title={`Partner: ${partner.name}`}>
      <div className="grid gap-1.5">
        <Check label="Its letter behind the drawing" checked={inDraw} onChange={setPartnerInDraw}>
          its letter behind the drawing
        </Check>
        {inDraw && !fault && outline?.glyph !== glyph && <p className="text-quiet">It has no such letter.</p>}
        {fault && <p className="text-brick">{fault}</p>}
        <Button onClick={() => void goToPartner()}>Go to it (Y)</Button>
      </div>
    </Section>
  );
}
