export { writeBareBoard } from './bareBoard';
export { writeCentroid } from './centroid';
export type { Placed, PlacedPad, PlacedPart, PlaceRemark, Side } from './placed';
export { photoOnMap, photoOverPlaces, type PhotoScale, type PhotoSide, pinsTaken } from './photoPins';
export { readPlaces } from './read';
export { textOfBytes } from './text';
export { partPlaced, placesOfKit, placesTaken, takePlaces } from './kitPlaces';
export { laidOut } from './laidOut';
export { neighboursOnMap, type PinChoice, pinsAtPad } from './neighbours';
