import { createSelector } from 'reselect';
import { deriveAbsent, type KitState } from '../kit';
import { planOf } from './plan';

/** The plan of a kit by the school in force. */
export const derivePlan = createSelector([(kit: KitState) => kit.sheet, (kit: KitState) => kit.settings, deriveAbsent], (sheet, settings, absent) =>
  planOf({ sheet, settings }, absent),
);
