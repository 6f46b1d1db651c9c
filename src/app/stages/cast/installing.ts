/** How a font file is installed, system by system. */
export const INSTALLING: readonly { system: string; how: string }[] = [
  { system: 'Windows', how: 'Right-click the .ttf or .otf and choose Install.' },
  { system: 'macOS', how: 'Double-click the file and choose Install.' },
  { system: 'Linux', how: 'Put the file into ~/.local/share/fonts, then run fc-cache.' },
  { system: 'Web', how: 'Put the .woff2 on your server and name it in an @font-face rule.' },
];
