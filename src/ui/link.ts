/** Words in a line that do something when they are pressed. */
export const link = 'cursor-pointer border-0 bg-transparent p-0 key-line hover:text-accent';
