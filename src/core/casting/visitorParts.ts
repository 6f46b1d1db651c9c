/** How a visitor’s page looks: plain, in the browser’s own face until the fonts are there. */
export const VISITOR_STYLE = `
:root { color-scheme: light; --ground: #fff; --ink: #16151a; --quiet: #6b6770; --line: #dedbd5; }
:root.dark { color-scheme: dark; --ground: #17161a; --ink: #f2f0ea; --quiet: #a29da8; --line: #37343c; }
* { box-sizing: border-box; }
body { margin: 0; background: var(--ground); color: var(--ink); font: 15px/1.45 system-ui, sans-serif; }
header, main { max-width: 66rem; margin: 0 auto; padding: 1rem 1.5rem; }
header { display: flex; flex-wrap: wrap; gap: .5rem 1.25rem; align-items: center; border-bottom: 1px solid var(--line); font-size: 14px; }
header label { display: flex; gap: .4rem; align-items: center; }
fieldset { border: 0; margin: 0; padding: 0; display: flex; flex-wrap: wrap; gap: .35rem .9rem; align-items: center; }
legend { float: left; padding: 0; margin-right: .4rem; color: var(--quiet); }
button, select { font: inherit; color: inherit; background: var(--ground); border: 1px solid var(--line); border-radius: 6px; padding: .2rem .6rem; }
button[aria-pressed="true"] { border-color: var(--ink); }
#state { color: var(--quiet); }
#lacking { color: #a4521c; }
:root.dark #lacking { color: #f0a36c; }
.set { font-family: var(--face, serif), serif; font-variation-settings: var(--place, normal); font-feature-settings: var(--features, normal); overflow-wrap: anywhere; }
#text { font-size: var(--size); line-height: 1.15; margin: 1.5rem 0; outline: none; min-height: 1em; }
#paragraph { font-size: 18px; line-height: 1.5; max-width: 38rem; margin: 0 0 2rem; }
table { border-collapse: collapse; font-size: 17px; font-variant-numeric: tabular-nums; }
td, th { text-align: right; padding: .2rem 0 .2rem 2.4rem; border-bottom: 1px solid var(--line); font-weight: inherit; }
td:first-child, th:first-child { text-align: left; padding-left: 0; }
h2 { font: inherit; color: var(--quiet); font-size: 13px; margin: 2rem 0 .4rem; }
`;

/** What a visitor’s page does; it runs by itself, with nothing but its data. */
export const VISITOR_SCRIPT = `
const page = JSON.parse(document.getElementById('data').textContent);
const root = document.documentElement;
const make = (tag, facts = {}, ...children) => {
  const e = Object.assign(document.createElement(tag), facts);
  e.append(...children);
  return e;
};
const kb = (n) => (n < 1024 ? n + ' bytes' : (n / 1024).toFixed(1) + ' KB');
let file = page.files[0];
let place = {};
let features = {};
let film = 0;

const state = make('span', { id: 'state' });
state.setAttribute('role', 'status');
const lacking = make('p', { id: 'lacking' });
const text = make('div', { id: 'text', className: 'set', contentEditable: 'plaintext-only', spellcheck: false, textContent: page.text });
text.setAttribute('role', 'textbox');
text.setAttribute('aria-label', 'Text');
const paragraph = make('p', { id: 'paragraph', className: 'set', textContent: (page.text + ' ').repeat(Math.max(1, Math.ceil(500 / (page.text.length + 1)))) });
const rows = [['Arrives', '07:45', '18:30', '1,204.50'], ['Halts', '11:11', '20:07', '987.16'], ['Leaves', '06:58', '23:59', '40,311.00']];
const table = make('table', { className: 'set' }, ...rows.map((r) => make('tr', {}, ...r.map((c) => make('td', { textContent: c })))));
const axes = make('fieldset', { id: 'axes' });
const instances = make('fieldset', { id: 'instances' });
const size = make('input', { type: 'range', min: 10, max: 160, value: 56 });
size.setAttribute('aria-label', 'Size');

const show = () => {
  root.style.setProperty('--size', size.value + 'px');
  root.style.setProperty('--place', Object.entries(place).map(([t, v]) => '"' + t + '" ' + v).join(', ') || 'normal');
  root.style.setProperty('--features', Object.entries(features).map(([t, v]) => '"' + t + '" ' + v).join(', ') || 'normal');
};
const look = () => {
  const has = new Set(file.codePoints);
  const gone = [...new Set(text.textContent + paragraph.textContent)].filter((c) => c.trim() && !has.has(c.codePointAt(0)));
  lacking.textContent = gone.length ? 'Not in this font, set in another: ' + gone.slice(0, 60).join(' ') + (gone.length > 60 ? ' and ' + (gone.length - 60) + ' more' : '') : '';
};
const buildAxes = () => {
  axes.replaceChildren();
  instances.replaceChildren();
  for (const a of file.axes) {
    const slider = make('input', { type: 'range', min: a.minimum, max: a.maximum, step: 'any', value: place[a.tag] ?? a.default });
    const told = make('span', { textContent: String(Math.round(slider.value)) });
    slider.setAttribute('aria-label', a.name);
    slider.dataset.axis = a.tag;
    slider.oninput = () => {
      place = { ...place, [a.tag]: Number(slider.value) };
      told.textContent = Math.round(slider.value);
      show();
    };
    axes.append(make('label', {}, a.name, slider, told));
  }
  if (file.axes.length) {
    const play = make('button', { textContent: 'Film' });
    play.setAttribute('aria-pressed', 'false');
    play.onclick = () => {
      cancelAnimationFrame(film);
      const on = play.getAttribute('aria-pressed') !== 'true';
      play.setAttribute('aria-pressed', String(on));
      const begun = performance.now();
      const step = (now) => {
        file.axes.forEach((a, i) => {
          const turn = (1 - Math.cos(((now - begun) / 1000) * (1.3 - i * 0.35))) / 2;
          place[a.tag] = a.minimum + turn * (a.maximum - a.minimum);
          const slider = axes.querySelector('[data-axis="' + a.tag + '"]');
          slider.value = place[a.tag];
          slider.nextSibling.textContent = Math.round(place[a.tag]);
        });
        show();
        film = requestAnimationFrame(step);
      };
      if (on) film = requestAnimationFrame(step);
    };
    axes.append(play);
  }
  for (const i of file.instances) {
    const button = make('button', { textContent: i.name });
    button.onclick = () => {
      place = { ...i.place };
      buildAxes();
      show();
    };
    instances.append(button);
  }
};
const choose = async (i) => {
  cancelAnimationFrame(film);
  file = page.files[i];
  place = {};
  buildAxes();
  show();
  look();
  const began = performance.now();
  state.textContent = 'loading ' + file.title + ', ' + kb(file.size) + '; until then another face is shown';
  root.style.setProperty('--face', '"visited-' + i + '"');
  try {
    const found = await document.fonts.load('20px "visited-' + i + '"');
    if (!found.length) throw new Error();
    state.textContent = file.title + ', ' + kb(file.size) + ', here after ' + Math.round(performance.now() - began) + ' ms';
    state.dataset.state = 'here';
  } catch {
    state.textContent = file.title + ' was refused by the browser; the text is set in another face';
    state.dataset.state = 'refused';
  }
};
const toggle = (name, does) => {
  const button = make('button', { textContent: name });
  button.setAttribute('aria-pressed', 'false');
  button.onclick = () => {
    const on = button.getAttribute('aria-pressed') !== 'true';
    button.setAttribute('aria-pressed', String(on));
    does(on);
  };
  return button;
};
const fonts = make('select', { onchange: (e) => choose(Number(e.target.value)) }, ...page.files.map((f, i) => make('option', { value: i, textContent: f.title })));
fonts.setAttribute('aria-label', 'Font');
const language = make('select', {}, make('option', { value: '', textContent: 'as the page' }), ...page.languages.map((l) => make('option', { value: l.code, textContent: l.name })));
language.setAttribute('aria-label', 'Language');
language.onchange = () => {
  const found = page.languages.find((l) => l.code === language.value);
  for (const e of [text, paragraph]) e.lang = language.value;
  text.textContent = found ? found.text : page.text;
  look();
};
const tags = make('fieldset', { id: 'features' }, make('legend', { textContent: 'Features (– as text has them)' }), ...page.features.map((f) => {
  const box = make('input', { type: 'checkbox', indeterminate: true });
  box.dataset.tag = f.tag;
  // As text has it, on, off, and round again.
  box.onclick = () => {
    const next = { undefined: 1, 1: 0, 0: undefined }[features[f.tag]];
    const { [f.tag]: _, ...rest } = features;
    features = next === undefined ? rest : { ...rest, [f.tag]: next };
    box.indeterminate = next === undefined;
    box.checked = next === 1;
    show();
  };
  return make('label', { title: f.title }, box, f.tag);
}));
text.oninput = look;
size.oninput = show;
document.body.append(
  make('header', {}, fonts, make('label', {}, 'Size', size), make('label', {}, 'Language', language),
    toggle('Dark', (on) => root.classList.toggle('dark', on)),
    toggle('Before it is here', (on) => root.style.setProperty('--face', on ? 'serif' : '"visited-' + page.files.indexOf(file) + '"')),
    state, axes, instances, tags),
  make('main', {}, lacking, text, make('h2', { textContent: 'A paragraph' }), paragraph, make('h2', { textContent: 'Figures in a table' }), table),
);
choose(0);
`;
