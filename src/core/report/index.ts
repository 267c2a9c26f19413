export { toCsv } from './csv';
export { buildReport, REPORT_SECTIONS, type ReportBlock, reportHtml, reportMarkdown, type ReportPart, type ReportSection } from './buildReport';
export { mayComplain } from './complaint';
export { packetLabels, type PacketLabel } from './labels';
export { logRows } from './rows';
export { sellerLetter } from './sellerLetter';
export { type ShoppingItem, shoppingList, shoppingText } from './shopping';
