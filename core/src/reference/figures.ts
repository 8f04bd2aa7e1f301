/** 1.96·√2·SEM with the factor rounded as practitioners print it (FORMULAS 5). */
export const MDC95_PER_SEM = 2.77;
