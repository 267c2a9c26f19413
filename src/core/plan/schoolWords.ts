import type { FittingSchool } from '../kit';

/** What each school of order is, what it costs, and for whom. */
export const SCHOOLS: Readonly<Record<FittingSchool, { readonly title: string; readonly consequence: string }>> = {
  lowest: { title: 'Lowest first', consequence: 'Nothing falls out when the board is turned; it is tested when all is in.' },
  list: { title: 'Down the list', consequence: 'Simple to tick off; tall parts come where the list has them.' },
  blocks: { title: 'Block by block', consequence: 'Each block is tested before the next: faults show early, tall parts get in the way.' },
  'least-harm': { title: 'Least harm first', consequence: 'Heat and static meet the sensitive parts last; fine-pitch chips first, on the flat board.' },
  heavy: { title: 'Heavy things first', consequence: 'Sinks and screws decide where things sit; the board is heavy to turn afterwards.' },
  own: { title: 'My own order', consequence: 'As you dragged it; what must wait still waits.' },
};
