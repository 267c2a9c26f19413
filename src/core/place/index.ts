export { writeBareBoard } from './bareBoard';
export { writeCentroid } from './centroid';
export type { Placed, PlacedPad, PlacedPart, PlaceRemark, Side } from './placed';
export { photoOnMap, type PhotoScale, pinsTaken } from './photoPins';
export { readPlaces } from './read';
export { textOfBytes } from './text';
export { placesOfKit, placesTaken, takePlaces } from './kitPlaces';
