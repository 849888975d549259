/** For whom a sheet is written. */

export type Reader = 'technician' | 'customer';
