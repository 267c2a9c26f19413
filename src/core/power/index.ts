export { type Adjustment, forecastAdjustment, type Limits, shareAt } from './adjust';
export { CAUTIONS, cautionsOf } from './cautions';
export { chargingTime, firstPower, type FirstPower, firstPowerUnknown, fuseFor, limitFor, starvedBy } from './first';
export { loadCurve, type LoadCurve } from './loadCurve';
export { forecastStage, type StageForecast, type SupplyForecast } from './forecast';
