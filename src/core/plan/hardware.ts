import type { Line } from '../kit';

/** Words of lists in several languages for what holds, cools or insulates a part. */
const SINK = /heat ?sink|\bsink\b|k(?:ü|ue)hlk(?:ö|oe)rper|dissipat|radiateur|disipador|radiator|радиатор|散热/iu;
const WASHER = /washer|mica|insulat|silicone pad|thermal pad|glimmer|isolier|scheibe|rondell|rondella|arandela|podkładk|шайб|слюд|云母|绝缘/iu;
const FASTENER = /screw|\bnuts?\b|\bbolts?\b|schraube|mutter\b|\bvis\b|écrou|tornillo|tuerca|\bvit[ei]\b|\bdad[oi]\b|śrub|nakręt|винт|гайк|螺丝|螺母|ねじ/iu;

export const isSink = (l: Line): boolean => l.kind === 'heatsink' || (l.kind === 'mechanical' && SINK.test(l.label));
export const isWasher = (l: Line): boolean => WASHER.test(l.label);
/** Screws, nuts and washers. */
export const isFastener = (l: Line): boolean => l.kind === 'mechanical' && (FASTENER.test(l.label) || isWasher(l)) && !SINK.test(l.label);
