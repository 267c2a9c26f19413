import type { BlockField, LibraryItem } from '../../circuit';

/** A card of a template, and what its part is for; `null` where no part of a list stands behind it. */
export interface RoleCard {
  readonly card: string;
  readonly role: string | null;
}

/** Something to look at when the circuit runs; `shows`: the part that does it, from so many amperes on. */
export interface TemplateLook {
  readonly title: string;
  readonly action: string;
  readonly expect: string;
  readonly shows?: { readonly ref: string; readonly amperes: number };
}

/** What a template amounts to with its figures filled in. */
export interface TemplateText {
  readonly cards: readonly RoleCard[];
  readonly needs: readonly LibraryItem[];
  /** Where the solver begins, such as `V(c1)=0`; only what oscillates needs it. */
  readonly initial: string | null;
  /** Nets worth a probe, and where they are found. */
  readonly points: Readonly<Record<string, string>>;
  readonly looks: readonly TemplateLook[];
}

export type TemplateValues = Readonly<Record<string, string | number>>;

/** A textbook circuit of the kind that kits use: figures go in, a deck with named roles comes out. */
export interface Template {
  readonly id: string;
  readonly title: string;
  readonly about: string;
  readonly fields: readonly BlockField[];
  build: (v: TemplateValues) => TemplateText;
}

/** Cards written one a line, each with what its part is for after a semicolon. */
function cardsOf(text: string): RoleCard[] {
  return text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '')
    .map((line) => {
      const [card = '', role = ''] = line.split(';').map((part) => part.trim());
      return { card, role: role === '' ? null : role };
    });
}

export const templateText = (text: string, needs: readonly LibraryItem[], more: Partial<Omit<TemplateText, 'cards' | 'needs'>> = {}): TemplateText => ({
  cards: cardsOf(text),
  needs,
  initial: null,
  points: {},
  looks: [],
  ...more,
});
