export const bench = async (): Promise<object> => ({});
