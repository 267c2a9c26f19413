export { COMMON_CARDS } from './common';
export { cardFor, comparePins } from './find';
