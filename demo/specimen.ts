import { castFont } from '../src/core/casting/font';
import { instanceAt } from '../src/core/variation/instance';
import { readyDemo } from './ready';

const face = (name: string) => `font-family:'${name}'`;

/** A page that shows the family's instances: cast between the masters, set as lines, small text, signs and figures. */
export function specimenPage(): string {
  const project = readyDemo();
  const fonts = project.instances.map((instance) => {
    const { project: single, stuck } = instanceAt(project, instance.place, instance.name);
    if (stuck.length > 0) throw new Error(`${instance.name}: masters disagree in ${stuck.join(', ')}.`);
    const font = castFont(single, { flavour: 'ttf', place: { master: single.masters[0]!.id } });
    if (!font.ok) throw new Error(font.reason);
    return `@font-face{${face(instance.name)};src:url(data:font/ttf;base64,${Buffer.from(font.value.bytes).toString('base64')})}`;
  });
  const line = (name: string, size: number, text: string) => `<p style="${face(name)};font-size:${size}px">${text}</p>`;
  const notice =
    'Passengers for Île-aux-Merles, Żurawka and Øverby change at Griffin Halt. The 07:45 from Señal Alta runs on market days only; dogs, parcels and milk travel in the van. Tickets bought aboard cost 3 € more. Brückfall trains leave from platform 2.';
  return `<!doctype html><meta charset="utf-8"><style>
${fonts.join('\n')}
body{margin:0;padding:26px 34px;background:#F7F4EE;color:#1E1B22;width:1212px;height:748px;display:grid;grid-template-columns:790px 386px;gap:24px 36px;align-content:start}
p{margin:0;line-height:1.24;white-space:nowrap}
.text p{white-space:normal;line-height:1.38;margin-bottom:13px}
.board{grid-column:1/3;background:#12695B;color:#FFFDF9;border-radius:10px;padding:12px 24px 14px;display:flex;justify-content:space-between;align-items:baseline}
</style>
<div>${['Light', 'Regular', 'Medium', 'Bold', 'Heavy'].map((n) => line(n, 49, 'Velmarrow Sans agfkRSQ&amp; 2357')).join('')}
${['Narrow Light', 'Narrow', 'Narrow Medium', 'Narrow Bold', 'Narrow Heavy'].map((n) => line(n, 46, 'Hamborn &amp; Orde, Čertův Mlýn, Þingborg 18:30')).join('')}</div>
<div class="text">${[
    ['Regular', 12],
    ['Medium', 12],
    ['Regular', 16],
    ['Narrow', 16],
    ['Light', 24],
  ]
    .map(([n, size]) => line(n as string, size as number, notice.slice(0, size === 24 ? 74 : size === 16 ? 167 : 300)))
    .join('')}</div>
<div class="board">${line('Bold', 46, '→ Platform 2')}${line('Narrow Bold', 46, 'Kőhegy 10:40')}${line('Medium', 46, 'Große Mühle ß@§€')}</div>`;
}
