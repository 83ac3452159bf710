import dayjs from 'dayjs';

/** The date of today as an ISO date, where the person is. */
export const today = (): string => dayjs().format('YYYY-MM-DD');
