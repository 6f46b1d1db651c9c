import type { Project } from '../project/model';

type Axis = Project['axes'][number];
type Registered = { [K in 'tag' | 'name' | 'minimum' | 'default' | 'maximum']: Axis[K] } & Pick<Axis, 'discrete'>;

/** Axes that there are standards for, with ends that make sense, in user units (OpenType, Design-Variation Axis Tag Registry). */
export const REGISTERED_AXES: readonly Registered[] = [
  { tag: 'wght', name: 'Weight', minimum: 400, default: 400, maximum: 700 },
  { tag: 'wdth', name: 'Width', minimum: 75, default: 100, maximum: 100 },
  { tag: 'opsz', name: 'Optical size', minimum: 8, default: 12, maximum: 72 },
  { tag: 'slnt', name: 'Slant', minimum: -12, default: 0, maximum: 0 },
  { tag: 'ital', name: 'Italic', minimum: 0, default: 0, maximum: 1, discrete: [0, 1] },
];
