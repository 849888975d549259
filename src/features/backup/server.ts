export { backupDownload } from './download';
export { backUpTo, backupFolder, backupName, backupsIn, shopsToBackUp } from './folder';
export { backUpTonight, startNightlyBackups } from './nightly';
export { Damaged, openBackup } from './readBackup';
export { AlreadyHere, restoreBackup } from './restoreBackup';
