/**
 * Decimals of the currencies of ISO 4217 list one (published 2024-06-25), by count.
 * Codes for which the standard gives no minor unit (metals, testing, drawing rights …) are not money here.
 */
const BY_DECIMALS: readonly (readonly [number, string])[] = [
  [0, 'BIF CLP DJF GNF ISK JPY KMF KRW PYG RWF UGX UYI VND VUV XAF XOF XPF'],
  [
    2,
    'AED AFN ALL AMD ANG AOA ARS AUD AWG AZN BAM BBD BDT BGN BMD BND BOB BOV BRL BSD BTN BWP BYN BZD CAD CDF CHE CHF '
      + 'CHW CNY COP COU CRC CUC CUP CVE CZK DKK DOP DZD EGP ERN ETB EUR FJD FKP GBP GEL GHS GIP GMD GTQ GYD HKD HNL HTG '
      + 'HUF IDR ILS INR IRR JMD KES KGS KHR KPW KYD KZT LAK LBP LKR LRD LSL MAD MDL MGA MKD MMK MNT MOP MRU MUR MVR MWK '
      + 'MXN MXV MYR MZN NAD NGN NIO NOK NPR NZD PAB PEN PGK PHP PKR PLN QAR RON RSD RUB SAR SBD SCR SDG SEK SGD SHP SLE '
      + 'SOS SRD SSP STN SVC SYP SZL THB TJS TMT TOP TRY TTD TWD TZS UAH USD USN UYU UZS VED VES WST XCD YER ZAR ZMW ZWG',
  ],
  [3, 'BHD IQD JOD KWD LYD OMR TND'],
  [4, 'CLF UYW'],
];

const DECIMALS = new Map(
  BY_DECIMALS.flatMap(([decimals, codes]) => codes.split(' ').map((code) => [code, decimals] as const)),
);

/**
 * Decimals of an ISO 4217 currency (JPY 0, EUR 2, BHD 3), or null for a code that has none or does not exist. "EUR" →
 * 2; "JPY" → 0; "BHD" → 3; "XYZ" → null.
 */
export function minorUnits(currency: string): number | null {
  return DECIMALS.get(currency) ?? null;
}

/** All currency codes with minor units, in alphabetical order. */
export const currencyCodes: readonly string[] = [...DECIMALS.keys()].sort();
