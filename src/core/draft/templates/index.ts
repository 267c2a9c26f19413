import { RUNNING_TEMPLATES } from './running';
import { SIGNAL_TEMPLATES } from './signal';
import { SUPPLY_TEMPLATES } from './supplies';
import { SWITCHING_TEMPLATES } from './switching';
import type { Template } from './template';

export { matchRoles, placeTemplate, type PlacedTemplate, type Role, rolesOf } from './match';
export type { Template, TemplateLook, TemplateText, TemplateValues } from './template';

/** Circuits to start from, by theme. */
export const TEMPLATE_GROUPS: readonly { readonly title: string; readonly templates: readonly Template[] }[] = [
  { title: 'Supplies', templates: SUPPLY_TEMPLATES },
  { title: 'Flashers, timers, oscillators', templates: RUNNING_TEMPLATES },
  { title: 'Amplifiers and sound', templates: SIGNAL_TEMPLATES },
  { title: 'Switches and controllers', templates: SWITCHING_TEMPLATES },
];

export const TEMPLATES: readonly Template[] = TEMPLATE_GROUPS.flatMap((g) => g.templates);
