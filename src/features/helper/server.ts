export {
  atTheKey,
  changeHelper,
  HELPER_COOKIE,
  HELPER_MS,
  helperNow,
  itStandsSo,
  joinByCode,
} from './helper';
