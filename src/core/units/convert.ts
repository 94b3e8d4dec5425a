/** The only place where other units exist; inside, everything is SI-like and says so in its name. */
export const MM_PER_INCH = 25.4
export const KG_PER_LB = 0.45359237
export const MM_PER_FOOT = 304.8
export const KM_PER_MILE = 1.609344

export const inchToMm = (inch: number) => inch * MM_PER_INCH
export const mmToInch = (mm: number) => mm / MM_PER_INCH
export const lbToKg = (lb: number) => lb * KG_PER_LB
export const N_PER_LBF = 4.4482216152605
export const LPM_PER_CFH = 0.4719474432
export const BAR_PER_PSI = 0.0689475729
export const M3_PER_FT3 = 0.0283168466
export const kgToLb = (kg: number) => kg / KG_PER_LB
/** Wire speed, inches a minute to metres a minute. */
export const ipmToMetrePerMin = (ipm: number) => (ipm * MM_PER_INCH) / 1000
export const metrePerMinToIpm = (speed: number) => (speed * 1000) / MM_PER_INCH
/** Of the liquid kind. */
export const L_PER_QUART = 0.946352946
