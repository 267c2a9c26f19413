export { packetLabels, type PacketLabel } from './labels';
export { logRows } from './rows';
export { sellerLetter } from './sellerLetter';
