import { openDatabase } from '../storage/database.ts';

/** What the main thread reads and writes itself: the Rack's list and how each Bench was left. */
export const database = openDatabase();
