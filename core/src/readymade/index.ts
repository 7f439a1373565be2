export { holidaysOf, type HolidayPlace } from './holidays';
export { moonPhases, sunTimes, type MoonPhase, type Spot, type SunTimes } from './sky';
