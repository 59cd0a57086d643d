/** A thread that writes and reads files. */
import { paperTasks } from './paper-tasks';
import { serveTasks } from './thread';

serveTasks(paperTasks);
