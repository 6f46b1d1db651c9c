import { useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import { counted } from '../../../core/base/notation';
import { plural } from '../../../core/project/edit';
import { likePartner, type Partner, setPartner, unlikePartner, withoutFellow } from '../../../core/project/partner';
import { glyphsInOrder } from '../../../core/project/queries';
import { run, useBench } from '../../state/bench';
import { listProjects } from '../../state/library';
import { bringPartner, goToPartner, setPartnerInGalley, usePartner } from '../../state/partner';
import { Check, Pick } from '../../ui/controls';
import { Button, Section } from '../../ui/parts';

const NONE = 'none';

/** The roman of an italic, the italic of a roman: which project it is, what one has and the other lacks, what is not alike. */
export function PartnerSection() {
  const partner = useBench((s) => s.settled!.settings.partner);
  const projectId = useBench((s) => s.projectId);
  const { told, fault, inGalley } = usePartner();
  useEffect(() => {
    void partner;
    void bringPartner();
  }, [partner]);
  const { data: others = [] } = useQuery({ queryKey: ['partners', projectId], queryFn: listProjects });
  const choose = (id: string) => {
    const entry = others.find((e) => e.id === id);
    run((p) => setPartner(p, { partner: entry && { id: entry.id, name: entry.name } }));
  };
  const named = partner && !others.some((e) => e.id === partner.id) ? [{ value: partner.id, text: partner.name }] : [];
  return (
    <Section title="Partner">
      <div className="grid grid-cols-[minmax(0,1fr)] gap-1.5">
        <Pick
          label="Partner of this project"
          value={partner?.id ?? NONE}
          options={[
            { value: NONE, text: 'none' },
            ...named,
            ...others.filter((e) => e.id !== projectId).map((e) => ({ value: e.id, text: e.name })),
          ]}
          onChange={choose}
        />
        {!partner && (
          <p className="text-quiet">
            A roman and its italic: one key goes from a letter to its fellow, and both are seen together.
          </p>
        )}
        {fault && partner && (
          <p role="alert" className="text-brick">
            {fault}
          </p>
        )}
        {partner && told && <Told partner={told} name={partner.name} />}
        {partner && told && (
          <>
            <Check label="A line of the galley" checked={inGalley} onChange={setPartnerInGalley}>
              a line of the galley
            </Check>
            <Button onClick={() => void goToPartner()}>Go to it (Y)</Button>
          </>
        )}
      </div>
    </Section>
  );
}

const listed = (names: readonly string[]): string =>
  names.length > 12 ? `${names.slice(0, 11).join(' ')} and ${names.length - 11} more` : names.join(' ');
const letters = (glyphs: readonly { name: string; unicodes: readonly number[] }[]): string =>
  listed(glyphs.map((g) => (g.unicodes[0] === undefined ? g.name : String.fromCodePoint(g.unicodes[0]))));

/** What one has and the other lacks, and where names and heights are not alike. */
function Told({ partner, name }: { partner: Partner; name: string }) {
  const project = useBench((s) => s.settled)!;
  const own = glyphsInOrder(project);
  const lacking = withoutFellow(own, partner);
  const more = withoutFellow(partner.glyphs, { glyphs: own });
  const unlike = unlikePartner(project, partner);
  return (
    <div className="grid gap-1 text-[13px]" data-testid="partner-told">
      <p className="text-quiet">
        {lacking.length + more.length === 0
          ? `Both have the same ${plural(own.length, 'glyph')}.`
          : `${plural(partner.glyphs.length, 'glyph')} there, ${counted(own.length)} here.`}
      </p>
      {lacking.length > 0 && (
        <p>
          <span className="text-quiet">Only here: </span>
          {letters(lacking)}
        </p>
      )}
      {more.length > 0 && (
        <p>
          <span className="text-quiet">Only there: </span>
          {letters(more)}
        </p>
      )}
      {unlike.length > 0 && (
        <>
          <p>
            <span className="text-quiet">Not alike: </span>
            {unlike.join('; ')}
          </p>
          <Button
            title="Names, heights and line heights come over for every master that it has one for; drawings stay"
            onClick={() => run((p) => likePartner(p, partner))}
          >
            Take these from {name}
          </Button>
        </>
      )}
    </div>
  );
}
