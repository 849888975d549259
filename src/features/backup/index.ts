export { BackupSection } from './BackupSection';
