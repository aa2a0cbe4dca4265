/** Folder of the project, wherever below it this was put together. */
export const root: string
/** File of a program, put together anew where one of its sources is newer. */
export function programFile(name: 'launch' | 'server' | 'judging'): string
